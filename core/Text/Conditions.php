<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Condition\Given\GivenField;
use VividLedger\Condition\MadeBy;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Condition\Operator\PersonOperator;
use VividLedger\Schema\Field;
use VividLedger\Shape\Scope;

/** Conditions in one line: "Priority is Urgent and (Stage is Sent or Stage is In talks)". */
final class Conditions implements Slot
{
    private const JOINED = ['all' => 'and', 'any' => 'or'];

    private const OPENED = ['all' => 'all of', 'any' => 'any of', 'none' => 'none of'];

    /** @param  bool  $isRoot  whether a single condition stands in a group of its own */
    public function __construct(private readonly bool $isRoot = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        if (! is_array($json)) {
            return null;
        }
        if ($this->isRoot && ($json['kind'] ?? null) === 'all' && is_array($json['of'] ?? null) && count($json['of']) === 1
            && ! isset(self::OPENED[$this->kind($json['of'][0] ?? null)])) {
            return $this->condition($json['of'][0], $scope, false);
        }

        return $this->condition($json, $scope, false);
    }

    public function parse(Cursor $cursor, Scope $scope, array $around): ?array
    {
        $read = $this->joined($cursor, $scope);
        if ($read === null) {
            return null;
        }

        return [$this->isRoot && ! isset(self::OPENED[$this->kind($read)]) ? ['kind' => 'all', 'of' => [$read]] : $read];
    }

    private function kind(mixed $json): string
    {
        return is_array($json) && is_string($json['kind'] ?? null) ? $json['kind'] : '';
    }

    private function condition(mixed $json, Scope $scope, bool $inside): ?string
    {
        $kind = $this->kind($json);
        if (! is_array($json)) {
            return null;
        }
        if (! isset(self::OPENED[$kind])) {
            return $this->atom($json, $scope);
        }
        if (array_diff(array_keys($json), ['kind', 'of']) !== [] || ! is_array($json['of'] ?? null) || $json['of'] === []) {
            return null;
        }
        $isJoined = isset(self::JOINED[$kind]) && count($json['of']) > 1;
        $parts = array_map(fn (mixed $part): ?string => $this->condition($part, $scope, true), array_values($json['of']));
        if (in_array(null, $parts, true)) {
            return null;
        }
        $text = $isJoined ? implode(' '.self::JOINED[$kind].' ', $parts) : self::OPENED[$kind].' ('.implode('; ', $parts).')';

        return $isJoined && $inside ? "({$text})" : $text;
    }

    /** @return ?array<mixed> */
    private function joined(Cursor $cursor, Scope $scope): ?array
    {
        $first = $this->term($cursor, $scope);
        if ($first === null) {
            return null;
        }
        foreach (self::JOINED as $kind => $word) {
            $parts = [$first];
            while (true) {
                $start = $cursor->at;
                $next = $cursor->words($word) ? $this->term($cursor, $scope) : null;
                if ($next === null) {
                    $cursor->at = $start;
                    break;
                }
                $parts[] = $next;
            }
            if (count($parts) > 1) {
                return ['kind' => $kind, 'of' => $parts];
            }
        }

        return $first;
    }

    /** @return ?array<mixed> */
    private function term(Cursor $cursor, Scope $scope): ?array
    {
        $start = $cursor->at;
        foreach (self::OPENED as $kind => $words) {
            if ($cursor->words($words) && $cursor->pattern('\(', '(') !== null) {
                $parts = [];
                do {
                    $part = $this->joined($cursor, $scope);
                    if ($part === null) {
                        return null;
                    }
                    $parts[] = $part;
                } while ($cursor->pattern(';', ';') !== null);

                return $cursor->pattern('\)', ')') === null ? null : ['kind' => $kind, 'of' => $parts];
            }
            $cursor->at = $start;
        }
        if ($cursor->pattern('\(', '(') !== null) {
            $inner = $this->joined($cursor, $scope);

            return $inner === null || $cursor->pattern('\)', ')') === null ? null : $inner;
        }

        return $this->readAtom($cursor, $scope);
    }

    /** @param  array<mixed>  $json */
    private function atom(array $json, Scope $scope): ?string
    {
        $special = self::special()->print($json, $scope, []);
        if ($special !== null) {
            return $special;
        }
        $operator = Operators::all()[$this->kind($json)] ?? null;
        $total = is_array($json['total'] ?? null) ? $json['total'] : null;
        $field = $total === null ? Fields::of($scope, $json['field'] ?? null) : Totals::field($total, $scope);
        $left = $total === null ? (is_string($json['field']
            ?? null) ? $scope->schema->path($scope->type, $json['field'])?->label() : null) : Totals::print($total, $scope);
        if ($operator === null || $field === null || $left === null || ! $operator->fits($field->type)) {
            return null;
        }
        $keys = match ($operator->operand()) {
            Operand::Nothing => [],
            Operand::Many => ['values'],
            default => ['value'],
        };
        if (array_diff(array_keys($json), ['kind', $total === null ? 'field' : 'total', ...$keys]) !== []) {
            return null;
        }
        $operand = $this->operand($operator, $field)?->print($json[$keys[0] ?? ''] ?? null, $scope, $json);

        return $keys !== [] && $operand === null ? null : trim("{$left} {$operator->label($field->type)} {$operand}");
    }

    /** @return ?array<mixed> */
    private function readAtom(Cursor $cursor, Scope $scope): ?array
    {
        $special = self::special()->parse($cursor, $scope, []);
        if ($special !== null && is_array($special[0])) {
            return $special[0];
        }
        $total = Totals::parse($cursor, $scope);
        $path = $total === null ? Fields::parsePath($cursor, $scope) : null;
        $field = $total === null ? Fields::of($scope, $path[0] ?? null) : Totals::field($total, $scope);
        $left = $total === null ? ['field' => $path[0] ?? ''] : ['total' => $total];
        if ($field === null) {
            return null;
        }
        $labels = [];
        foreach (Operators::fitting($field->type) as $operator) {
            $labels[$operator->label($field->type)] ??= $operator;
        }
        // "is in the next" begins with "is", so every fitting comparison is tried, the longest first.
        $start = $cursor->at;
        uksort($labels, static fn (string $one, string $other): int => strlen($other) <=> strlen($one));
        foreach ($labels as $label => $operator) {
            $cursor->at = $start;
            if (! $cursor->words($label)) {
                continue;
            }
            $slot = $this->operand($operator, $field);
            if ($slot === null) {
                return ['kind' => $operator->kind()] + $left;
            }
            $read = $slot->parse($cursor, $scope, $left);
            if ($read !== null) {
                return ['kind' => $operator->kind()] + $left + [$operator->operand() === Operand::Many ? 'values' : 'value' => $read[0]];
            }
        }
        $cursor->at = $start;

        return null;
    }

    private function operand(Operator $operator, Field $field): ?Slot
    {
        $field = $operator instanceof PersonOperator ? $operator->compared($field) : $field;
        // The field at hand, which for a total is none of the record's own.
        $value = new Simple(
            static fn (mixed $json, Scope $scope): ?string => Values::print($json, $field, $scope),
            static fn (Cursor $cursor, Scope $scope): ?array => Values::parse($cursor, $field, $scope),
        );

        return match ($operator->operand()) {
            Operand::Nothing => null,
            Operand::Many => Simple::many($value, 'or'),
            Operand::Span => Amounts::length(),
            Operand::One => $operator->ofNothing() === null ? $value : new Simple(
                static fn (mixed $json, Scope $scope, array $around): ?string => is_array($json) ? self::given($field)
                    ->print($json, $scope, $around) : $value->print($json, $scope, $around),
                static fn (Cursor $cursor, Scope $scope, array $around): ?array => $value->parse($cursor, $scope, $around)
                    ?? self::given($field)->parse($cursor, $scope, $around),
            ),
        };
    }

    /** What a field is compared with when it is found and not written. */
    private static function given(Field $field): ChoiceSlot
    {
        $base = $field->type === \VividLedger\Schema\FieldType::Date ? 'today' : 'now';

        return new ChoiceSlot(static fn (): array => [
            ...($field->type->isMoment() ? [
                new Pattern(['kind' => 'moment'], [$base, ['*', Amounts::none()]]),
                new Pattern(['kind' => 'moment'], [['*', Amounts::at(-1)], ' ago']),
                new Pattern(['kind' => 'moment'], [['*', Amounts::at(1)], " from {$base}"]),
            ] : []),
            // "Owner is Reviewer" compares two fields; "Owner is the Reviewer" finds a person, with what that takes.
            ...($field->type === \VividLedger\Schema\FieldType::Person
                ? [
                    new Pattern(['kind' => GivenField::kind()], [['path', Fields::bare()]]),
                    new Pattern(['kind' => 'person'], [['person', PersonSlots::person()]]),
                ]
                : []),
            new Pattern(['kind' => GivenField::kind()], [['path', Fields::path()]]),
        ]);
    }

    private static function special(): ChoiceSlot
    {
        static $special = null;
        if (! $special instanceof ChoiceSlot) {
            $special = new ChoiceSlot(static function (): array {
                $ways = array_flip(MadeBy::WAYS);
                $by = new Simple(
                    static fn (mixed $json, Scope $scope, array $around): ?string => is_string($json) ? (MadeBy::WAYS[$json]
                        ?? null) : PersonSlots::person()->print($json, $scope, $around),
                    static fn (Cursor $cursor, Scope $scope, array $around): ?array => $cursor->label($ways) ?? PersonSlots::person()
                        ->parse($cursor, $scope, $around),
                );
                $events = Simple::labelled(static function (): array {
                    $labels = [];
                    foreach (\VividLedger\Condition\Happened::EVENTS as $event) {
                        $labels[$event->label()] = $event->value;
                    }

                    return $labels;
                });

                return [
                    new Pattern(['kind' => 'made_by'], ['the change was made by ', ['by', $by]]),
                    new Pattern(['kind' => 'not_made_by'], ['the change was not made by ', ['by', $by]]),
                    new Pattern(['kind' => 'happened'], ['it ', ['event', $events]]),
                    new Pattern(['kind' => 'named'], ['it is one of ', ['name', Simple::quoted()]]),
                    new Pattern(['kind' => 'formula'], ['the formula ', ['formula', Simple::quoted()]]),
                ];
            });
        }

        return $special;
    }
}
