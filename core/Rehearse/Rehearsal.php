<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\Engine;
use VividLedger\Engine\RuleBook;
use VividLedger\Engine\Verdict;
use VividLedger\Explain\Answers;
use VividLedger\Explain\Told;
use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\Formula\ComputedFields;
use VividLedger\People\Who;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rehearse\WhatIf\WhatIf;
use VividLedger\Rule\Line\Gathered;
use VividLedger\Rule\Line\ListedTask;
use VividLedger\Rule\Line\SentTogether;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Ahead;
use VividLedger\Rule\Trigger\Gathers;
use VividLedger\Rule\Trigger\OpeningKind;
use VividLedger\Rule\Trigger\Swept;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** Plays the life of a rule on one record, from the first change to its last pencilled line, and touches nothing. */
final readonly class Rehearsal
{
    /** A life is played no further; what would come then is said to come. */
    public const MOST_DAYS = 400;

    private const MOST_ENTRIES = 250;

    private Engine $engine;

    public function __construct(private Schema $schema, private \DateTimeZone $zone)
    {
        $this->engine = new Engine($schema, $zone);
    }

    /**
     * @param  Rule  $own  the rule that is rehearsed, a draft or a page
     * @param  list<Rule>  $rules  all that answer, in order, the rehearsed one among them
     * @param  ?RuleBook  $pages  where pages are found that lines pencilled in before may stand on
     * @param  ?Beside  $beside  what else a rule whose timetable puts records together for a person may put there
     * @param  ?\DateTimeImmutable  $atLeast  how far time passes even if nothing is pencilled in any more, so that two rehearsals can be
     *     compared
     */
    public function play(
        Script $script,
        Rule $own,
        array $rules,
        Facts $facts,
        ?RuleBook $pages = null,
        ?\DateTimeImmutable $atLeast = null,
        ?Beside $beside = null,
    ): Played {
        if ($own->trigger instanceof Gathers && $own->trigger->per() !== null) {
            return $this->together($script, $own, $own->trigger, $own->trigger->per(), $facts, $beside ?? new Beside);
        }
        $from = $script->opening->at;
        $play = new Play(
            schema: $this->schema, zone: $this->zone, engine: $this->engine, book: new PaperBook($rules, $pages), below: $facts,
            now: $from,
        );
        $type = $this->schema->types[$script->record->type];
        $play->paper->asIfNew($own->id);
        if ($pages !== null) {
            foreach ($facts->inPlay($script->record->type, $script->record->id) as $run) {
                if ($run->rule !== $own->id) {
                    $play->paper->runs->adopt($run);
                }
            }
        }
        foreach ($script->whatIfs as $whatIf) {
            $whatIf->prepare($play);
        }
        $before = $script->opening->kind === OpeningKind::Created ? null : $script->record->with(ComputedFields::with($type, array_replace(
            $script->record->values,
            $script->opening->was,
            $script->opening->kind->saves() ? [] : $script->opening->set,
        )));
        if ($before !== null) {
            $play->paper->keep($before);
        } else {
            $play->paper->remove($script->record);
        }
        $change = $this->opening($script, $own, $type, $before, $play);
        $why = $this->why($own, $rules, $change, $play);
        $play->answer($change);
        [$until, $goesOn] = $this->letPass($script, $play, $type, $from, $atLeast);

        return new Played(
            entries: $play->entries, left: $play->paper->runs->left(), before: $before,
            after: $play->paper->record($type->name, $script->record->id), why: $why, from: $from, until: $until, goesOn: $goesOn,
            slips: $play->paper->runs->slips->all, signOffs: $play->paper->runs->signOffs->all,
        );
    }

    /**
     * A timetable comes round that puts records together for a person: the list of the one to whom the rehearsed record leads.
     */
    private function together(Script $script, Rule $own, Gathers $trigger, Who $per, Facts $facts, Beside $beside): Played
    {
        $at = $script->opening->at;
        $type = $this->schema->types[$own->on];
        $coming = array_values(array_filter(
            $script->whatIfs,
            static fn (WhatIf $whatIf): bool => $whatIf->at() !== null && $whatIf->at() <= $at,
        ));
        usort($coming, static fn (WhatIf $one, WhatIf $other): int => $one->at() <=> $other->at());
        $before = $script->record->with(ComputedFields::with($type, array_replace(
            $script->record->values,
            $script->opening->was,
            $script->opening->set,
        )));
        $play = new Play(
            schema: $this->schema, zone: $this->zone, engine: $this->engine, book: new PaperBook([$own]), below: $facts,
            now: min($at, $coming === [] ? $at : ($coming[0]->at() ?? $at)),
        );
        foreach ($script->whatIfs as $whatIf) {
            $whatIf->prepare($play);
        }
        $play->paper->keep($before);
        foreach ($coming as $whatIf) {
            $play->passTo($whatIf->at() ?? $at);
            $whatIf->apply($play, $before->id, $type, $script->actor);
        }
        $play->passTo($at);
        $record = $play->paper->record($own->on, $before->id) ?? $before;
        $why = $this->why(
            $own,
            [$own],
            Change::event(
                $record,
                new Event(EventKind::CameRound, 'rehearsed', $own->trigger->wanted(), $own->id),
                null,
                $at,
                CauseKind::Rule,
            ),
            $play,
        );
        $person = $per->find(new View($record, $play->paper))->person;
        if ($why?->conditions->held === true && $person?->isAtWork() === true) {
            $calendar = $play->paper->calendar($person);
            $zone = $trigger->isByOwnClock() ? $calendar->zone : $this->zone;
            $tasks = array_values(array_filter($beside->tasks, static fn (ListedTask $task): bool => $task->assignee === $person->id));
            foreach ($own->lines as $placed) {
                if (! $placed->line instanceof SentTogether) {
                    continue;
                }
                $records = [];
                foreach ($placed->line->sections() as $index => $section) {
                    $whose = $section->per ?? $per;
                    $theirs = array_values(array_filter(
                        $beside->records[$placed->place][$index] ?? [],
                        static fn (Record $one): bool => ($one->id !== $record->id || $one->type !== $record->type)
                            && $whose->find(new View($one, $play->paper))->person?->id === $person->id,
                    ));
                    $records[] = $index === 0 ? [$record, ...$theirs] : $theirs;
                }
                $made = $placed->line->message(
                    new Gathered($records, $tasks),
                    $person,
                    $play->paper,
                    new Display($play->paper, $zone),
                    $zone,
                    $calendar,
                );
                if ($made !== null) {
                    $play->entries[] = new PaperEntry(
                        count($play->entries) + 1,
                        $at,
                        new Told(
                            'gathered',
                            $record,
                            $own,
                            [
                                'person' => $person->id, 'records' => $made[1], 'subject' => $made[0]->subject,
                                ...($made[2] === 0 ? [] : ['left' => $made[2]]),
                            ],
                        ),
                        null,
                        [$made[0]],
                    );
                }
            }
        }

        return new Played(
            entries: $play->entries, left: [], before: $before, after: $record, why: $why, from: min($at, $play->entries[0]->at ?? $at),
            until: $at, goesOn: false,
        );
    }

    private function opening(Script $script, Rule $own, RecordType $type, ?Record $before, Play $play): Change
    {
        $opening = $script->opening;
        $record = $script->record;
        $at = $opening->at;
        $event = $opening->kind->event();
        if ($event !== null) {
            $key = "{$event->value}:rehearsed";

            return Change::event(
                $before ?? $record,
                new Event($event, $key, $opening->text, $opening->kind === OpeningKind::ByHand ? $own->id : null, $opening->from),
                $script->actor,
                $at,
            );
        }
        if ($opening->kind === OpeningKind::Time && $own->trigger instanceof Swept) {
            $missed = $own->trigger->missed(new Ahead(
                type: $type, record: $before ?? $record, facts: $play->paper, zone: $this->zone, from: $at, until: $at,
            ));

            return Change::event(
                $before ?? $record,
                new Event(
                    $own->trigger::event(),
                    $missed === null ? 'rehearsed' : Swept::MISSED,
                    $missed ?? $own->trigger->wanted(),
                    $own->id,
                ),
                null,
                $at,
                CauseKind::Rule,
            );
        }
        if ($opening->kind === OpeningKind::Deleted) {
            return new Change($before ?? $record, null, $script->actor, $at);
        }
        if ($opening->kind === OpeningKind::Related && $opening->related !== null) {
            [$relatedType, $id] = $opening->related;
            $was = $id === 0 ? null : $play->paper->record($relatedType, $id);

            return new Change(
                $was,
                $play->made($was, $was->id ?? $play->paper->freshId($relatedType), $relatedType, $opening->set, $script->actor),
                $script->actor,
                $at,
            );
        }

        return new Change(
            $before,
            $play->made(
                $before ?? null,
                $record->id,
                $type->name,
                $before === null ? array_replace($record->values, $opening->set) : $opening->set,
                $script->actor,
            ),
            $script->actor,
            $at,
        );
    }

    /**
     * What the rehearsed rule makes of the opening, among the rules that answer it too.
     *
     * @param  list<Rule>  $rules
     */
    private function why(Rule $own, array $rules, Change $change, Play $play): ?Verdict
    {
        // Asked of a copy: the numbers of records that the answer would make are not used up by asking.
        foreach ((new Answers($this->schema, $this->engine, $this->zone))->to($change, $rules, clone $play->paper) as [$rule, $verdict]) {
            if ($rule->id === $own->id) {
                return $verdict;
            }
        }

        return null;
    }

    /** @return array{\DateTimeImmutable, bool} how far it was played, and whether more would come */
    private function letPass(Script $script, Play $play, RecordType $type, \DateTimeImmutable $from, ?\DateTimeImmutable $atLeast): array
    {
        $end = $from->modify('+'.self::MOST_DAYS.' days');
        $coming = array_values(array_filter(
            $script->whatIfs,
            static fn (WhatIf $whatIf): bool => $whatIf->at() !== null && $whatIf->at() >= $from && $whatIf->at() <= $end,
        ));
        usort($coming, static fn (WhatIf $one, WhatIf $other): int => $one->at() <=> $other->at());
        foreach ($coming as $whatIf) {
            $play->passTo($whatIf->at() ?? $from, $script->record, self::MOST_ENTRIES);
            $whatIf->apply($play, $script->record->id, $type, $script->actor);
        }
        if ($atLeast !== null) {
            $play->passTo(min($atLeast, $end), $script->record, self::MOST_ENTRIES);
        }
        // As far as anything is pencilled in; what time sets off by itself would go on for ever.
        $until = $play->paper->now;
        while (($next = $play->nextDue()) !== null && $next <= $end && count($play->entries) < self::MOST_ENTRIES) {
            $play->passTo($next, $script->record, self::MOST_ENTRIES);
            $until = max($until, $next);
        }

        return [$until, $next !== null];
    }
}
