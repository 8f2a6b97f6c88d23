<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** The record at hand, "the ticket". It says nothing that the file would have to keep. */
final readonly class ItsType implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): string
    {
        return $scope->type->inSentence();
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $one = $scope->type->inSentence();
        $found = [];
        foreach (! $typed->isLoose ? [$one] : [$one, 'it', 'record', "this {$one}", 'this', 'this record', 'this one'] as $nth => $words) {
            $end = $typed->words($at, $words, $nth === 0 ? 0 : 3);
            if ($end !== null) {
                $found[] = new Parsed(null, $end, min(1, $nth));
            }
        }

        return $found;
    }

    public function schema(): array
    {
        return [];
    }
}
