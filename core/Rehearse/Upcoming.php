<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\Facts;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ComesRound;
use VividLedger\Rule\Trigger\DateArrives;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Rule\Trigger\Swept;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** Finds when time will set off rules on one record. What has happened on paper moves it, so it is asked again after each step. */
final class Upcoming
{
    private const KINDS = [
        'change' => ['created', 'changed', 'restored', 'fired', 'line'],
        'activity' => ['created', 'changed', 'restored', 'fired', 'line', 'comment', 'file', 'task_done', 'reply', 'by_hand'],
    ];

    /** @var list<Rule> */
    private readonly array $rules;

    /** @var array<string, true> starts that have come, by rule and occasion */
    private array $came = [];

    /** @param  list<Rule>  $rules */
    public function __construct(array $rules, private readonly Schema $schema, private readonly \DateTimeZone $zone, private readonly \DateTimeImmutable $from)
    {
        $this->rules = array_values(array_filter($rules, static fn (Rule $rule): bool => $rule->trigger instanceof Swept));
    }

    /**
     * @param  list<PaperEntry>  $entries
     * @return ?Start the earliest; null when none comes until then
     */
    public function next(?Record $record, array $entries, Facts $facts, \DateTimeImmutable $until): ?Start
    {
        $next = null;
        if ($record === null) {
            return null;
        }
        foreach ($this->rules as $rule) {
            if ($rule->on !== $record->type || ! $rule->trigger instanceof Swept) {
                continue;
            }
            foreach ($this->moments($rule, $record, $entries, $facts, $until) as [$at, $occasion]) {
                if ($at > $this->from && $at <= $until && ! isset($this->came["{$rule->id} {$occasion}"]) && ($next === null || $at < $next->at)) {
                    $next = new Start($at, $rule, $record, $rule->trigger::event(), $occasion, $rule->trigger->wanted());
                }
            }
        }

        return $next;
    }

    public function came(Start $start): void
    {
        $this->came["{$start->rule->id} {$start->occasion}"] = true;
    }

    /**
     * @param  list<PaperEntry>  $entries
     * @return list<array{\DateTimeImmutable, string}> moment and occasion
     */
    private function moments(Rule $rule, Record $record, array $entries, Facts $facts, \DateTimeImmutable $until): array
    {
        $trigger = $rule->trigger;
        if ($trigger instanceof DateArrives) {
            return self::dates($trigger, $this->schema->types[$record->type], $record, $facts, $this->zone, $this->from, $until);
        }
        if ($trigger instanceof FallsQuiet) {
            $last = $this->lastOf($trigger, $record, $entries);

            return $last === null ? [] : [[$trigger->due->from($last->at, $this->zone, $facts->calendar(null)), $trigger->occasion($last->number)]];
        }
        if ($trigger instanceof ComesRound && $trigger->per === null) {
            return array_map(static fn (\DateTimeImmutable $at): array => [$at, $trigger->occasion($at)], $trigger->timetable->between(max($this->from, $facts->now()->modify('-1 second')), $until, $this->zone, $facts->calendar(null)));
        }

        return [];
    }

    /** @return list<array{\DateTimeImmutable, string}> when a date of the record sets a rule off, and the occasion */
    public static function dates(DateArrives $trigger, RecordType $type, Record $record, Facts $facts, \DateTimeZone $zone, \DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        $value = $record->value($trigger->field->name);
        if (! is_string($value)) {
            return [];
        }
        $calendar = $facts->calendar(null);
        if ($trigger->due->ownersClock) {
            $owner = $record->value($type->owner);
            $calendar = $facts->calendar(is_int($owner) ? $facts->person($owner) : null);
            $zone = $calendar->zone;
        }
        $years = [null];
        if ($trigger->yearly) {
            $reach = intdiv(abs($trigger->due->amount->seconds()), 365 * 86_400) + 1;
            $years = array_values(array_filter(range((int) $from->format('Y') - $reach, (int) $until->format('Y') + $reach), static fn (int $year): bool => $year > (int) substr($value, 0, 4)));
        }

        return array_map(static fn (?int $year): array => [$trigger->moment($value, $year, $calendar, $zone), $trigger->occasion($value, $year)], $years);
    }

    /**
     * The last entry after which the record can have fallen quiet; null when none counts, or it has been answered.
     *
     * @param  list<PaperEntry>  $entries
     */
    private function lastOf(FallsQuiet $trigger, Record $record, array $entries): ?PaperEntry
    {
        foreach (array_reverse($entries) as $entry) {
            if ($entry->told->record->type !== $record->type || $entry->told->record->id !== $record->id) {
                continue;
            }
            if ($trigger->sort === 'reply') {
                if ($entry->told->kind === 'reply') {
                    return null;
                }
                if ($entry->messages !== []) {
                    return $entry;
                }
            } elseif ($trigger->sort === 'value') {
                if ($trigger->field !== null && self::touches($entry, $trigger->field->name)) {
                    $now = $record->value($trigger->field->name);

                    return $now === $trigger->value || ($trigger->field->type === FieldType::Tick && (bool) $now === $trigger->value) ? $entry : null;
                }
            } elseif (in_array($entry->told->kind, self::KINDS[$trigger->sort], true) && (! in_array($entry->told->kind, ['fired', 'line'], true) || ($entry->told->data['changes'] ?? []) !== [])) {
                return $entry;
            }
        }

        return null;
    }

    private static function touches(PaperEntry $entry, string $field): bool
    {
        $changes = $entry->told->data['changes'] ?? [];

        return is_array($changes) && in_array($field, array_column($changes, 'field'), true);
    }
}
