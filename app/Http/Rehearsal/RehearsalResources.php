<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Evidence\Rehearsal\Rehearsed;
use App\Http\Ledger\EntryResources;
use App\Http\Ledger\VerdictResource;
use App\Http\Records\RecordResources;
use App\Http\Today\TallyResource;
use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Explain\Kept;
use VividLedger\Facts\PencilledLine;
use VividLedger\Record\Display;
use VividLedger\Record\Value;
use VividLedger\Rehearse\PaperEntry;
use VividLedger\Rehearse\PaperSignOff;
use VividLedger\Rehearse\PaperSlip;
use VividLedger\Rehearse\PaperTask;
use VividLedger\Rehearse\Played;
use VividLedger\Rehearse\ScriptReader;
use VividLedger\Rehearse\Tally;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\OpeningKind;
use VividLedger\Schema\Choice;
use VividLedger\Schema\RecordType;
use VividLedger\Slip\Question;
use VividLedger\Words\Words;

/** Rehearsals as the API gives them. */
final readonly class RehearsalResources
{
    public function __construct(
        private SchemaStore $schemas,
        private PeopleStore $names,
        private Company $company,
        private RecordResources $records,
        private EntryResources $entries,
    ) {
    }

    public function of(Rule $rule, Rehearsed $rehearsed): RehearsalResource
    {
        foreach ($rehearsed->played->entries as $entry) {
            if ($entry->told->kind === 'created') {
                $this->entries->suppose($entry->told->record);
            }
        }

        $script = $rehearsed->script;
        $played = $rehearsed->played;
        $type = $this->schemas->schema()->types[$rule->on];
        $display = Display::spoken($this->names, $this->company->zone());
        $struck = [];
        foreach ($played->entries as $entry) {
            array_push($struck, ...$this->struck($entry, $rule));
        }

        return new RehearsalResource(
            record: $this->records->of($type, [$script->record])[0], pick: $rehearsed->pick,
            opening: json_decode((string) json_encode(ScriptReader::written($script->opening)), true),
            openingSaid: $this->opening($script->opening, $rule, $type, $display),
            whatIfs: array_map(static fn ($whatIf): string => $whatIf->said($type, $display), $script->whatIfs),
            entries: array_map(fn (PaperEntry $entry): PaperEntryResource => $this->entry($entry, $rule, $script->actor), $played->entries),
            struck: $struck,
            left: array_map(
                static fn (PencilledLine $line): PaperLineResource => new PaperLineResource(
                    due: $line->due === null ? null : Value::instantText($line->due),
                    said: $line->run->rule === $rule->id ? ($rule->line($line->place)->said ?? '') : '', ruleName: null,
                    own: $line->run->rule === $rule->id, because: '', entry: null,
                ),
                $played->left,
            ),
            tally: $this->tally($played, $type, $display),
            without: $rehearsed->without === null ? null : $this->tally($rehearsed->without, $type, $display),
            why: $played->why === null ? null : VerdictResource::of($played->why), from: Value::instantText($played->from),
            until: Value::instantText($played->until), goesOn: $played->goesOn, slips: array_map(self::slip(...), $played->slips),
            signOffs: array_map(
                static fn (PaperSignOff $one): string => $one->asked->why === '' ? $one->rule->name : $one->asked->why,
                $played->signOffs,
            ),
        );
    }

    private static function slip(PaperSlip $slip): PaperSlipResource
    {
        return new PaperSlipResource($slip->number, $slip->sent->subject, array_map(
            static fn (Question $question): PaperQuestionResource => new PaperQuestionResource(
                $question->label,
                $question->isFile ? 'file' : $question->field->type->value,
                $question->isNeeded,
                array_map(
                    static fn (Choice $choice): PaperChoiceResource => new PaperChoiceResource($choice->value, $choice->label),
                    $question->field->choices,
                ),
            ),
            $slip->sent->form->questions,
        ));
    }

    private function entry(PaperEntry $entry, Rule $rule, ?int $actor): PaperEntryResource
    {
        $told = $entry->told;
        $who = $told->rule === null && $actor !== null ? $this->names->person($actor) : null;
        $via = $told->rule === null && $entry->cause === null ? 'person' : 'rule';

        return new PaperEntryResource(
            $this->entries->onPaper($entry->number, $entry->at, $told, $via, $who, $entry->cause),
            $told->rule?->id === $rule->id,
            $entry->isWhatIf,
            array_map(
                static fn ($message): PaperMessage => new PaperMessage(
                    $message->channel->value,
                    $message->toText(),
                    $message->subject,
                    $message->text,
                    $message->path,
                ),
                $entry->messages,
            ),
            array_map(static fn (PaperTask $task): PaperTaskResource => new PaperTaskResource(
                number: $task->number, title: $task->given->title, person: $task->given->person?->name, path: $task->given->path,
                due: $task->given->due === null ? null
                : Value::instantText($task->given->due),
                done: $task->doneAt === null ? null : Value::instantText($task->doneAt),
            ), $entry->tasks),
        );
    }

    /** @return list<PaperLineResource> pencilled lines that came to nothing, at the moment they were for */
    private function struck(PaperEntry $entry, Rule $rule): array
    {
        if ($entry->told->kind !== 'struck' && $entry->told->kind !== 'too_late') {
            return [];
        }
        $kept = new Kept($entry->told->data);

        return array_map(static fn (Kept $line): PaperLineResource => new PaperLineResource(
            due: $line->text('due') === '' ? null : $line->text('due'), said: $line->text('said'), ruleName: $entry->told->rule?->name,
            own: $entry->told->rule?->id === $rule->id, because: $kept->text('because'), entry: $entry->number,
        ), $kept->rows('lines'));
    }

    private function opening(Opening $opening, Rule $rule, RecordType $type, Display $display): string
    {
        $about = $opening->related === null ? $type : $this->schemas->schema()->types[$opening->related[0]];
        $sets = [];
        foreach ($opening->set as $name => $value) {
            $field = $about->fields[$name];
            $was = $opening->was[$name] ?? null;
            $sets[] = $opening->kind === OpeningKind::Created || $was === null ? Words::say(
                '{field} becomes {value}',
                field: $field->label,
                value: $display->of($field, $value),
            )
                : Words::say(
                    '{field} goes from {before} to {after}',
                    field: $field->label,
                    before: $display->of($field, $was),
                    after: $display->of($field, $value),
                );
        }
        $set = $sets === [] ? '' : ', '.implode(', ', $sets);

        if (! $opening->kind->saves()) {
            $happens = match ($opening->kind) {
                OpeningKind::Deleted => Words::say('is deleted'),
                OpeningKind::Time => $rule->trigger->wanted(),
                default => (string) $opening->kind->event()?->label(),
            };
            $stands = array_map(
                static fn (string $name): string => Words::say(
                    '{field} is {value}',
                    field: $type->fields[$name]->label,
                    value: $display->of($type->fields[$name], $opening->set[$name]),
                ),
                array_keys($opening->set),
            );

            $from = match (true) {
                $opening->from === '' => '',
                $opening->kind === OpeningKind::Hook => ", “{$opening->from}”",
                default => Words::say(' from “{from}”', from: $opening->from),
            };

            return Words::say(
                'The {record} {happens}{from}{text}{where}',
                record: Words::within($type->label),
                happens: $happens,
                from: $from,
                text: $opening->text === '' ? '' : ", “{$opening->text}”",
                where: $stands === [] ? '' : Words::say(', where {stands}', stands: Words::list($stands)),
            );
        }

        return match ($opening->kind) {
            OpeningKind::Created => Words::say('The {record} is created', record: Words::within($type->label)),
            OpeningKind::Related => ($opening->related[1] ?? 0) === 0
                ? Words::say('A related {record} is created{set}', record: Words::within($about->label), set: $set)
                : Words::say('A related {record} is changed{set}', record: Words::within($about->label), set: $set),
            default => $sets === [] ? Words::say('The {record} is saved', record: Words::within($type->label)) : implode(', ', $sets),
        };
    }

    private function tally(Played $played, RecordType $type, Display $display): TallyResource
    {
        $ends = [];
        $after = $played->after;
        foreach ($after === null ? [] : $type->ownFields() as $field) {
            $is = $after?->value($field->name);
            if ($played->before !== null && $is !== $played->before->value($field->name)) {
                $ends[] = Words::say('{field} is {value}', field: $field->label, value: $display->of($field, $is));
            }
        }
        $tally = Tally::of($played, $ends);

        return new TallyResource(
            emails: $tally->emails, texts: $tally->texts, notes: $tally->notes, tasks: $tally->tasks, changes: $tally->changes,
            struck: $tally->struck, ends: $tally->ends, said: $tally->said(),
        );
    }
}
