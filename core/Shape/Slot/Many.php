<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A list of what another slot reads: "High, Urgent or Low". */
final readonly class Many implements Slot
{
    /**
     * @param  string  $last  the word before the last of them
     * @param  string  $also  another word that is heard there
     */
    public function __construct(
        private Slot $one,
        private string $last,
        private int $least = 1,
        private string $also = '',
        private ?int $most = null,
        private bool $isSet = false,
    ) {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        if (! is_array($json) || ! array_is_list($json) || $json === []) {
            return null;
        }
        $texts = [];
        foreach ($json as $item) {
            $text = $this->one->print($item, $scope, $around);
            if ($text === null) {
                return null;
            }
            $texts[] = $text;
        }
        $end = array_pop($texts);

        return $texts === [] ? $end : implode(', ', $texts)." {$this->last} {$end}";
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        $open = array_map(static fn (Parsed $one): Parsed => $one->as([$one->json]), $this->one->parse($typed, $at, $scope, $around));
        // A comma, or the last word, can belong to what follows the list: every length of it is a reading.
        while ($open !== []) {
            array_push($found, ...$open);
            $longer = [];
            foreach ($open as $list) {
                $comma = $typed->pattern($list->end, ',', ',');
                $behind = $typed->words($comma[1] ?? $list->end, $this->last) ?? ($comma[1] ?? null);
                $also = $behind === null && $this->also !== '' ? $typed->words($list->end, $this->also, 3) : null;
                foreach ($behind === null && $also === null ? [] : $this->one->parse($typed, $behind ?? $also, $scope, $around) as $next) {
                    $items = is_array($list->json) ? array_values($list->json) : [];
                    $longer[] = new Parsed([...$items, $next->json], $next->end, $list->cost + $next->cost + ($also === null ? 0 : 1));
                }
            }
            $open = Parsed::distinct($longer);
        }

        return array_values(array_filter(
            $found,
            fn (Parsed $list): bool => is_array($list->json) && count($list->json) >= $this->least,
        ));
    }

    public function schema(): array
    {
        return ['type' => 'array', 'minItems' => $this->least] + ($this->most === null ? [] : ['maxItems' => $this->most])
            + ($this->isSet ? ['uniqueItems' => true] : [])
            + ['items' => $this->one->schema()];
    }
}
