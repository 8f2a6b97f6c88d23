<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Quoted;

/** A condition that the company keeps under a name and several rules use: "Nordic hotels". */
final readonly class NamedCondition implements Parted
{
    public function __construct(
        private Condition $of,
        private string $text,
    ) {
    }

    public static function shape(): Shape
    {
        return Shape::of('named')->says('it is one of {name}')->orSaid('{} is one of {name}', 'it is (in|among) {name}')
            ->slot('', new ItsType)->slot('name', new Quoted);
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

    public function parts(): array
    {
        return [$this->of];
    }

    public function truth(array $truths): ?bool
    {
        return $truths[0];
    }
}
