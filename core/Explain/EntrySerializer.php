<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Engine\CutOff;
use VividLedger\Engine\Effect;
use VividLedger\Engine\Firing;
use VividLedger\Engine\HeldBack;
use VividLedger\Engine\Lapsed;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Pages;
use VividLedger\Engine\Postponed;
use VividLedger\Engine\ReadyAgain;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\Step;
use VividLedger\Engine\Stopped;
use VividLedger\Engine\Struck;
use VividLedger\Engine\TooLate;
use VividLedger\Engine\WaitsForRelease;
use VividLedger\Facts\Run;
use VividLedger\Record\Change;
use VividLedger\Record\Value;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Schema;

/** Tells what happened as the ledger keeps it; the ledger in ink and a rehearsal on paper are told by the same words. */
final readonly class EntrySerializer
{
    public function __construct(
        private Schema $schema,
        private Pages $rules,
    ) {
    }

    public function step(Step $step): Told
    {
        return match (true) {
            $step instanceof Firing => new Told('fired', $step->performance->record, $step->rule, [
                'why' => $step->why, 'did' => $step->performance->outcomes,
            ], $this->changes(new Change($step->before, $step->after, null, $step->performance->now))),
            $step instanceof LineDone => new Told('line', $step->performance->record, $step->rule, [
                'line' => $step->rule->line($step->line->place)->said ?? '', 'place' => $step->line->place, 'turn' => $step->line->turn,
                'due' => self::iso($step->line->due), 'did' => $step->performance->outcomes,
            ] + ($step->line->meant === null ? [] : ['meant' => self::iso($step->line->meant)]),
                $this->changes(new Change($step->before, $step->after, null, $step->performance->now))),
            $step instanceof Struck => new Told('struck', $step->record, $this->page($step->run), [
                'code' => $step->code->value, 'because' => $step->because, 'lines' => $this->lines($step->run, $step->lines),
            ]),
            $step instanceof Retimed => new Told('retimed', $step->record, $this->page($step->run), [
                'because' => $step->because, 'lines' => $this->lines($step->run, array_keys($step->lines), $step->lines),
            ]),
            $step instanceof Lapsed => new Told('task_lapsed', $step->record, $step->rule, [
                'title' => $step->task->title, 'person' => $step->task->person, 'because' => $step->because,
            ]),
            $step instanceof Postponed => new Told('postponed', $step->record, $this->page($step->line->run), [
                'because' => $step->because, 'until' => self::iso($step->until),
                'lines' => $this->lines($step->line->run, [$step->line->id]),
            ]),
            $step instanceof HeldBack => new Told('held_back', $step->record, $step->rule, [
                'signOff' => $step->lock->signOff, 'since' => self::iso($step->lock->since), 'again' => $step->comesAgain(),
            ]),
            $step instanceof WaitsForRelease => new Told('waits_for_release', $step->record, $this->page($step->line->run), [
                'signOff' => $step->lock->signOff, 'lines' => $this->lines($step->line->run, [$step->line->id]),
            ]),
            $step instanceof TooLate => new Told('too_late', $step->record, $step->rule, [
                'because' => $step->because, 'lines' => $this->lines($step->line->run, [$step->line->id]),
            ]),
            $step instanceof Stopped => new Told('stopped', $step->record, $step->chain[count($step->chain) - 1], [
                'chain' => array_map(static fn (Rule $rule): string => $rule->name, $step->chain), 'cameRound' => $step->cameRound,
            ]),
            $step instanceof CutOff => new Told('cut_off', $step->record, $step->rule, ['done' => $step->done, 'of' => $step->of]),
            $step instanceof ReadyAgain => new Told('ready_again', $step->record, $step->rule, []),
            $step instanceof Effect && $step->change->event !== null => new Told(
                'comment',
                $step->change->record(),
                null,
                ['text' => $step->change->event->text]
                    + ($step->change->event->tells === [] ? [] : ['tells' => $step->change->event->tells]),
            ),
            $step instanceof Effect => $this->save($step->change),
            default => throw new \LogicException('Not a step of a decision: '.$step::class),
        };
    }

    public function save(Change $change): Told
    {
        $kind = match (true) {
            $change->before === null => 'created',
            $change->after === null => 'deleted',
            default => 'changed',
        };

        return new Told($kind, $change->record(), null, [], $this->changes($change));
    }

    /** @return list<FieldDifference> */
    public function changes(Change $change): array
    {
        return array_map(
            static fn (string $name): FieldDifference => new FieldDifference(
                $name,
                $change->before?->value($name),
                $change->after?->value($name),
            ),
            self::differing($change, $this->schema),
        );
    }

    private static function iso(?\DateTimeImmutable $at): ?string
    {
        return $at === null ? null : Value::instantText($at);
    }

    /** @return list<string> names of the fields, the application's own left out */
    public static function differing(Change $change, Schema $schema): array
    {
        $names = [];
        foreach ($schema->types[$change->record()->type]->fields as $name => $field) {
            $was = $change->before?->value($name);
            $is = $change->after?->value($name);
            // An empty tick box is no news of a record that begins or ends.
            if (! $field->system && $was !== $is && ! ($change->before === null && $is === false)
                && ! ($change->after === null && $was === false)) {
                $names[] = $name;
            }
        }

        return $names;
    }

    /**
     * Lines of a run as an entry keeps them: how they read, and when they were to fall due.
     *
     * @param  ?list<int>  $only  ids; null for all
     * @param  array<int, array{?\DateTimeImmutable, ?\DateTimeImmutable}>  $moved
     * @return list<array<string, ?string>>
     */
    private function lines(Run $run, ?array $only, array $moved = []): array
    {
        $rule = $this->page($run);
        $lines = [];
        foreach ($run->lines as $line) {
            if ($only === null || in_array($line->id, $only, true)) {
                $to = $moved[$line->id][1] ?? null;
                $lines[] = [
                    'said' => $rule?->line($line->place)->said
                        ?? '', 'due' => self::iso($line->due),
                    ...(isset($moved[$line->id]) ? ['to' => self::iso($to)] : []),
                ];
            }
        }

        return $lines;
    }

    private function page(Run $run): ?Rule
    {
        return $this->rules->page($run->rule, $run->page);
    }
}
