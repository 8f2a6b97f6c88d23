<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Condition\Given\GivenMoment;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;

/** A date or moment that lies between now and a moving date. */
final readonly class SpanComparison implements Statement
{
    /**
     * @param  GivenMoment  $from  the earlier end
     * @param  GivenMoment  $to  the later end
     */
    public function __construct(
        public Readable $left,
        private GivenMoment $from,
        private GivenMoment $to,
        public string $text,
    ) {
    }

    public function compile(): Closure
    {
        return function (View $view): bool {
            $value = $view->value($this->left);
            $field = $this->left->field();

            // Written so that the order of the texts is the order in time.
            return is_string($value) && strcmp(
                $value,
                $this->from->value($view, $field),
            ) >= 0 && strcmp($value, $this->to->value($view, $field)) <= 0;
        };
    }

    public function query(QueryWriter $writer): mixed
    {
        return $writer->all([
            $writer->compare($this->left, Order::AtLeast, $this->from), $writer->compare($this->left, Order::AtMost, $this->to),
        ]);
    }

    public function explain(View $view, Display $display): Finding
    {
        return new Finding($this->text, ($this->compile())($view), $display->of($this->left->field(), $view->value($this->left)));
    }

    public function paths(): array
    {
        return $this->left instanceof Path ? [$this->left] : [];
    }

    public function atom(): Atom
    {
        $path = $this->left instanceof Path ? $this->left : null;

        return new Atom($path, "{$path?->name()} {$this->text}", ofEmpty: $path === null ? null : false);
    }
}
