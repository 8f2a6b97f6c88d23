<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** Whole sentences in a row: "…; and …", or "…; then …". */
final readonly class Series implements Slot
{
    /** @param  string  $alsoJoint  a pattern of what people say instead of the joint; empty for nothing */
    public function __construct(
        private Slot $one,
        private int $least,
        private ?int $most = null,
        private bool $isNeeded = true,
        private string $joint = 'and',
        private string $alsoJoint = '',
    ) {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $texts = is_array($json) && array_is_list($json) ? array_map(
            fn (mixed $item): ?string => $this->one->print($item, $scope, $around),
            $json,
        ) : [];

        return count($texts) < $this->least || in_array(null, $texts, true) ? null : implode("; {$this->joint} ", $texts);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        $open = array_map(static fn (Parsed $one): Parsed => $one->as([$one->json]), $this->one->parse($typed, $at, $scope, $around));
        while ($open !== []) {
            array_push($found, ...$open);
            $longer = [];
            foreach ($open as $list) {
                foreach ($this->behind($typed, $list->end) as [$behind, $cost]) {
                    foreach ($this->one->parse($typed, $behind, $scope, $around) as $next) {
                        $items = is_array($list->json) ? array_values($list->json) : [];
                        $longer[] = new Parsed([...$items, $next->json], $next->end, $list->cost + $next->cost + $cost);
                    }
                }
            }
            $open = $longer;
        }

        return array_values(array_filter(
            $found,
            fn (Parsed $list): bool => is_array($list->json) && count($list->json) >= $this->least,
        ));
    }

    /** @return list<array{int, int}> places behind what joins two, with their cost */
    private function behind(Typed $typed, int $at): array
    {
        $printed = $typed->pattern($at, ";\\s*(?:{$this->joint}\\b)?", "; {$this->joint}", 0);
        $said = $this->alsoJoint === '' ? null : $typed->pattern($at, $this->alsoJoint, '', 3);

        return [...($printed === null ? [] : [[$printed[1], 0]]), ...($said === null ? [] : [[$said[1], 1]])];
    }

    public function schema(): array
    {
        return ['type' => 'array'] + ($this->isNeeded ? ['minItems' => 1] : []) + ($this->most === null ? []
            : ['maxItems' => $this->most]) + [
                'items' => $this->one->schema(),
            ];
    }
}
