<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Explain\FieldDifference;
use VividLedger\Facts\Facts;
use VividLedger\Facts\Quiet;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Ahead;
use VividLedger\Rule\Trigger\Swept;
use VividLedger\Schema\Schema;

/** Finds when time will set off rules on one record. What has happened on paper moves it, so it is asked again after each step. */
final class Upcoming
{
    /** @var list<Rule> */
    private readonly array $rules;

    /** @var array<string, true> starts that have come, by rule and occasion */
    private array $came = [];

    /** @param  list<Rule>  $rules */
    public function __construct(
        array $rules,
        private readonly Schema $schema,
        private readonly \DateTimeZone $zone,
        private readonly \DateTimeImmutable $from,
    ) {
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
                // What lay behind already when the date was set, no sweep would find.
                if ($at > $this->from && $at >= $facts->now() && $at <= $until && ! isset($this->came["{$rule->id} {$occasion}"])
                    && ($next === null || $at < $next->at)) {
                    $next = new Start(
                        at: $at, rule: $rule, record: $record, kind: $rule->trigger::event(), occasion: $occasion,
                        said: $rule->trigger->wanted(),
                    );
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
        return $rule->trigger instanceof Swept ? $rule->trigger->moments(new Ahead(
            type: $this->schema->types[$record->type], record: $record, facts: $facts, zone: $this->zone,
            from: max($this->from, $facts->now()->modify('-1 second')), until: $until,
            silence: fn (Quiet $quiet): array => $this->silentSince($quiet, $record, $entries, $facts),
        )) : [];
    }

    /**
     * When what the silence is counted from happened, and the number of its entry: 0 when that was before the rehearsal.
     *
     * @param  list<PaperEntry>  $entries
     * @return array{?\DateTimeImmutable, int} no moment when nothing counts, or it has been answered
     */
    private function silentSince(Quiet $quiet, Record $record, array $entries, Facts $facts): array
    {
        foreach (array_reverse($entries) as $entry) {
            if ($entry->told->record->type !== $record->type || $entry->told->record->id !== $record->id) {
                continue;
            }
            $breaks = match ($quiet->sort) {
                Quiet::REPLY => $entry->told->kind === 'reply' || array_filter(
                    $entry->messages,
                    static fn (Message $message): bool => $message->channel !== Channel::App,
                ) !== [],
                Quiet::VALUE => $quiet->field !== null && self::touches($entry, $quiet->field->name),
                default => in_array($entry->told->kind, $quiet->brokenBy(), true),
            };
            if ($breaks) {
                $isAnswered = $quiet->sort === Quiet::REPLY ? $entry->told->kind === 'reply'
                    : $quiet->field !== null && ! $quiet->keeps($record->value($quiet->field->name));

                return [$isAnswered ? null : $entry->at, $entry->number];
            }
        }

        return [$facts->silentSince($quiet, $record->type, $record->id), 0];
    }

    private static function touches(PaperEntry $entry, string $field): bool
    {
        return in_array($field, array_map(static fn (FieldDifference $change): string => $change->field, $entry->told->changes), true);
    }
}
