<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Rule\Cases\CaseHeading;
use VividLedger\Rule\Cases\CasePart;
use VividLedger\Rule\Cases\EndOfCases;
use VividLedger\Rule\Cases\IfCase;
use VividLedger\Rule\Cases\OrIfCase;
use VividLedger\Rule\Cases\OtherwiseCase;
use VividLedger\Rule\Timing\AwaitsConditions;
use VividLedger\Rule\Timing\Climb;
use VividLedger\Rule\Timing\Timing;
use VividLedger\Rule\Timing\Timings;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Part;
use VividLedger\Shape\Row;
use VividLedger\Shape\TimeForm;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** All kinds of line, in the order they are offered. A new kind is a new file and one line here. */
final class Lines
{
    public const MOST = 50;

    /** @var list<class-string<Line>> */
    public const ALL = [
        SetFields::class, GiveTask::class, GiveTasks::class, Remind::class, SendMessage::class, SendList::class, Escalate::class,
        CreateRecord::class, Assign::class,
        AddComment::class, Follow::class, AskForSignOff::class, SendSlip::class, CallEndpoint::class,
        Refuse::class, IfCase::class, OrIfCase::class, OtherwiseCase::class, EndOfCases::class,
    ];

    /** @return list<class-string<Line>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    /** @return ?Placed null when it is unfinished, and the problem is noted; a line that is switched off is read all the same */
    public static function read(Context $context, Node $node, int $place): ?Placed
    {
        $heading = self::headings()[$node->kind()] ?? null;
        if ($heading !== null) {
            return self::heading($context, $node, $place, $heading);
        }
        $at = $node->child('at');
        [$timing, $row] = self::timed($context, $node, $place);
        $problems = $context->problems();
        $read = self::line($context, $node);
        $said = $row->text();
        $tooLate = self::times($context, $node, $timing ?: null, $place);
        if ($read instanceof OnlyAtOnce && $timing !== null) {
            return $context->problem($node->child('at')->at, 'wrong_type', $read::whyNow());
        }
        $bare = $read;
        $timing = self::awaited($context, $timing, $at);
        $own = $node->child('onlyIf');
        if ($own->isMissing()) {
            // The word belongs to the line's own sentence, above the rows of its conditions. What is made of many records has none.
            if (! is_a((string) self::ofKind($node->kind()), SentTogether::class, true)) {
                $context->wordIn($row, '+ only if', WordRole::More, $own->at, Editor::conditions());
            }
        } else {
            $condition = ConditionReader::read($context, $own, 'only if', 1);
            $read = $read === null || $condition === null ? null : new OnlyIf($read, $condition, $said);
        }
        $lapses = self::lapses($context, $node->child('lapses'), $bare, $row);
        if ($bare instanceof Climbs) {
            $timing = new Climb($timing ?: null, $bare->ladder());
        }
        // What the sentence says of its time is not said twice when it is read aloud.
        $row->said = $timing instanceof Timing && $timing->note() !== $timing->said() ? trim(str_replace(
            $timing->note(),
            '',
            $timing->said(),
        )) : '';
        $key = $node->child('key')->text() ?? '';
        if ($key !== '') {
            if (preg_match('/^[a-z][a-z0-9_]{0,39}$/D', $key) !== 1) {
                return $context->problem(
                    $node->child('key')->at,
                    'wrong_type',
                    Words::say('A line goes by a short name of small letters, digits and underlines, such as first_call.'),
                );
            }
            if (isset($context->sheet->waitables->keys()[$key])) {
                return $context->problem(
                    $node->child('key')->at,
                    'name_taken',
                    Words::say('A line above already goes by ‘{key}’.', key: $key),
                );
            }
        }
        if ($bare instanceof Waitable) {
            $context->sheet->waitables->add($bare->waitedAs(), $place, $key, $said, $bare->ends());
        }

        return $read === null || $timing === false || $context->problems() > $problems ? null : new Placed(
            place: $place, line: $read, kind: $node->kind(), timing: $timing, tooLate: $tooLate, key: $key, said: $said, lapses: $lapses,
        );
    }

    /** @return array<string, class-string<CaseHeading>> the headings of cases, by kind */
    public static function headings(): array
    {
        return Kinds::once(self::class.'headings', static function (): array {
            $headings = array_filter(self::all(), static fn (string $line): bool => is_a($line, CaseHeading::class, true));

            return array_combine(array_map(static fn (string $line): string => $line::kind(), $headings), $headings);
        });
    }

    /**
     * The heading of a case: a row without people, conditions or a name of its own. The first of some cases has their time.
     *
     * @param  class-string<CaseHeading>  $heading
     */
    private static function heading(Context $context, Node $node, int $place, string $heading): ?Placed
    {
        $at = $node->child('at');
        $hasTime = $heading::part() === CasePart::First;
        $problems = $context->problems();
        [$timing, $row] = $hasTime ? self::timed($context, $node, $place) : [null, $context->row(Part::Line, $node)];
        $row->heading = true;
        $row->off = $node->child('off')->raw === true;
        $read = $heading::read($context, $node);
        if ($timing instanceof Timing && $timing->repeats()) {
            $context->problem($at->at, 'wrong_type', Words::say('Cases are decided once. Let the lines in them repeat.'));
        }
        if ($timing instanceof Timing && $timing->note() !== '') {
            $context->wordIn($row, ', '.$timing->note(), WordRole::Value, $at->at, Timings::form($context, $place));
        }
        $timing = self::awaited($context, $timing, $at);

        return $read === null || $timing === false || $context->problems() > $problems ? null
            : new Placed(place: $place, line: $read, kind: $node->kind(), timing: $timing, said: $read->said());
    }

    /** @return array{Timing|false|null, Row} a row with its time in the margin; false where that cannot be read */
    private static function timed(Context $context, Node $node, int $place): array
    {
        $at = $node->child('at');
        $timing = Timings::read($context, $at);
        $margin = $timing instanceof Timing ? $timing->margin() : ($timing === false ? 'when?' : 'at once');
        $row = $context->row(Part::Line, $node, $margin);
        $context->when($row, $margin, $at->at, Timings::form($context, $place));
        $row->off = $node->child('off')->raw === true;
        $row->after = $timing instanceof Timing ? $timing->seconds() : ($timing === null ? 0 : null);

        return [$timing, $row];
    }

    /** A time that waits for conditions has them in rows of their own. */
    private static function awaited(Context $context, Timing|false|null $timing, Node $at): Timing|false|null
    {
        return $timing instanceof AwaitsConditions ? ($timing->reading($context, $at) ?? false) : $timing;
    }

    /** What takes the point from the tasks of a line. */
    private static function lapses(Context $context, Node $node, ?Line $line, Row $row): ?Condition
    {
        if (! $line instanceof GivesTasks) {
            return $node->isMissing() || $line === null ? null
                : $context->problem($node->at, 'wrong_type', Words::say('Only a task lapses, and this line gives none.'));
        }
        if ($node->isMissing()) {
            $context->wordIn($row, '+ lapses when', WordRole::More, $node->at, Editor::conditions());

            return null;
        }

        return ConditionReader::read($context, $node, 'lapses when', 1);
    }

    private static function line(Context $context, Node $node): ?Line
    {
        $line = self::ofKind($node->kind());

        return $line !== null ? $line::read($context, $node) : $context->gap('choose what to do', $node->at, null, 'unknown_line',
            Words::say('Choose what this line does, or remove it.'));
    }

    /** @return ?class-string<Line> */
    private static function ofKind(string $kind): ?string
    {
        foreach (self::all() as $line) {
            if ($line::kind() === $kind) {
                return $line;
            }
        }

        return null;
    }

    /** What the margin leaves out of the line's time, and when it comes too late. */
    private static function times(Context $context, Node $node, ?Timing $timing, int $place): ?Due
    {
        $at = $node->child('at')->at;
        if ($timing === null) {
            return null;
        }
        if ($timing->note() !== '') {
            $context->glue(',');
            $context->word($timing->note(), WordRole::Value, $at, Timings::form($context, $place));
        }
        $late = $node->child('tooLate');
        $form = TimeForm::length('Too late after');
        if ($late->isMissing()) {
            $context->more('+ too late after', $late->at, $form);

            return null;
        }
        $due = TimeReader::due($late);
        if (is_string($due) || $due->amount->amount < 1) {
            return $context->gap(
                'too late when?',
                $late->at,
                $form,
                'wrong_type',
                is_string($due) ? $due : Words::say('Give an amount of 1 or more.'),
            );
        }
        $context->glue(', too late after');
        $context->word($due->length(), WordRole::Value, $late->at, $form);

        return $due;
    }
}
