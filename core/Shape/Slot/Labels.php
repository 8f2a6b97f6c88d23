<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Shape\LabelSet;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** One of some labels, each of which stands for something. */
final class Labels implements Slot
{
    /** @var ?LabelSet<mixed> */
    private ?LabelSet $set = null;

    /** @var ?LabelSet<mixed> */
    private ?LabelSet $others = null;

    /**
     * @param  Closure(Scope, array<mixed>): array<string, mixed>  $labels  what each stands for
     * @param  array<string, mixed>  $also  other words for the same
     * @param  list<mixed>  $values  all that there are, where that is known beforehand
     */
    public function __construct(
        private readonly Closure $labels,
        private readonly array $also = [],
        private readonly array $values = [],
    ) {
    }

    /**
     * @param  array<string, mixed>  $labels
     * @param  array<string, mixed>  $also
     */
    public static function of(array $labels, array $also = []): self
    {
        return new self(static fn (): array => $labels, $also, array_values($labels));
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $found = array_search($json, ($this->labels)($scope, $around), true);

        return $found === false ? null : (string) $found;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return [
            ...array_map(
                static fn (array $found): Parsed => new Parsed($found[0], $found[1]),
                $typed->labels($at, $this->values === [] ? ($this->labels)($scope, $around)
                    : $this->set ??= new LabelSet(($this->labels)($scope, $around))),
            ),
            ...array_map(
                static fn (array $found): Parsed => new Parsed($found[0], $found[1], 1),
                $this->also === [] || ! $typed->isLoose ? [] : $typed->labels($at, $this->others ??= new LabelSet($this->also), 1),
            ),
        ];
    }

    public function schema(): array
    {
        return $this->values === [] ? ['type' => 'string'] : ['enum' => $this->values];
    }
}
