<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** The records a rule is about, as its first words name them: "a Ticket". Which type that is stands elsewhere in the file. */
final readonly class Subject implements MultiKeySlot
{
    use InKeys;

    /** @param  string  $word  that stands before the name: "new" */
    public function __construct(private string $word = '')
    {
    }

    public function keys(): array
    {
        return [];
    }

    public function print(mixed $json, Scope $scope, array $around): string
    {
        return (preg_match('/^[aeiou]/i', $scope->type->label) === 1 ? 'an ' : 'a ').trim("{$this->word} {$scope->type->label}");
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $one = $scope->type->label;
        $found = [];
        foreach ([trim("{$this->word} {$one}"), trim(
            "{$this->word} {$scope->type->plural}",
        ), ...($this->word === '' && $typed->isLoose ? ['it', 'the record', 'a record', "any {$one}",
            "this {$one}", "one of the {$scope->type->plural}"] : [])] as $nth => $words) {
            $end = $typed->words($at, $words, $nth === 0 ? 0 : 3);
            if ($end !== null) {
                $found[] = new Parsed([], $end, min(1, $nth));
            }
        }

        return $found;
    }

    public function properties(): array
    {
        return [];
    }

    public function required(): array
    {
        return [];
    }
}
