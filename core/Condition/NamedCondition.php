<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Engine\View;
use VividLedger\Record\Display;

/** A condition that the company keeps under a name and several rules use: "Nordic hotels". */
final readonly class NamedCondition implements Condition
{
    public function __construct(
        public Condition $of,
        private string $text,
    ) {
    }

    public function compile(): Closure
    {
        return $this->of->compile();
    }

    public function query(QueryWriter $writer): mixed
    {
        return $this->of->query($writer);
    }

    public function explain(View $view, Display $display): Finding
    {
        $finding = $this->of->explain($view, $display);

        return new Finding(
            $this->text,
            $finding->held,
            $finding->parts === [] ? $finding->seen : null,
            $finding->parts === [] ? [] : [$finding],
        );
    }

    public function paths(): array
    {
        return $this->of->paths();
    }
}
