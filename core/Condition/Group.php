<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Record\Display;

/** Several conditions judged together. */
abstract readonly class Group implements Parted
{
    /** @param  list<Condition>  $parts */
    final public function __construct(public array $parts)
    {
    }

    /** The words that open the group: "all of". */
    abstract public static function wording(): string;

    public function parts(): array
    {
        return $this->parts;
    }

    public function explain(View $view, Display $display): Finding
    {
        return new Finding(
            static::wording(),
            ($this->compile())($view),
            parts: array_map(static fn (Condition $part): Finding => $part->explain($view, $display), $this->parts),
        );
    }

    public function paths(): array
    {
        return array_merge([], ...array_map(static fn (Condition $part): array => $part->paths(), $this->parts));
    }

    /** @return list<Closure(View): bool> */
    protected function compiledParts(): array
    {
        return array_map(static fn (Condition $part): Closure => $part->compile(), $this->parts);
    }

    /**
     * @template Q
     *
     * @param  QueryWriter<Q>  $writer
     * @return list<Q>
     */
    protected function queriedParts(QueryWriter $writer): array
    {
        $queries = [];
        foreach ($this->parts as $part) {
            $queries[] = $part->query($writer);
        }

        return $queries;
    }
}
