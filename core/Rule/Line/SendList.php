<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Facts\Facts;
use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\Display;
use VividLedger\Rule\Letter\ChannelSlot;
use VividLedger\Rule\Performance\Performance;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Slot\Series;
use VividLedger\Shape\WordRole;
use VividLedger\Template\RichText;
use VividLedger\Time\WorkingCalendar;

/**
 * Sends a person one list of records, of one type or of several, and of open tasks: tables of chosen columns, parted into what
 * is late, due today, and due in the next days by a date, or undivided without one.
 */
final readonly class SendList implements Line, SentTogether
{
    public const SUBJECT_LENGTH = 200;

    public const MOST_DAYS = 60;

    private const MOST_SECTIONS = 6;

    /** @param  non-empty-list<ListSection>  $sections  the first is what the timetable puts together */
    private function __construct(
        private Channel $channel,
        private string $subject,
        private string $intro,
        private array $sections,
        private bool $tasks,
        private int $days,
        private bool $workingDays,
    ) {
    }

    public static function kind(): string
    {
        return 'send_list';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['subject' => 'Your list', 'columns' => [], 'days' => 5, 'workingDays' => true])->says(
            'Send them {channel} about {subject} with the columns {columns}[, by {by} up to {ahead} ahead][, and {and}][, and '
                .'their open tasks{tasks}]'
                .'[, saying {body}]',
        )->orSaid('Send them {channel} about {subject} with {columns}[, by {by} up to {ahead} ahead][, and {and}][, and their open '
            .'tasks{tasks}]')
            ->slot('channel', new ChannelSlot([Channel::Email, Channel::App]))->may('channel')
            ->slot('subject', new Quoted(self::SUBJECT_LENGTH))
            ->slot('columns', new Many(new FieldPath, 'and', most: ListSection::MOST_COLUMNS))
            ->slot('by', new OwnField)->slot('ahead', new DaysAhead)
            ->slot('and', new Series(ListSection::shape(), 1, self::MOST_SECTIONS, isNeeded: false))
            ->slot('tasks', new Always)->slot('body', new Quoted(2000, 0));
    }

    public static function label(): string
    {
        return 'Send a list';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $problems = $context->problems();
        $type = $context->type;
        $context->glue('Send them');
        $channel = Channel::tryFrom($node->child('channel')->text() ?? 'email');
        $channels = static fn (): array => [new Offer('an e-mail', null), new Offer('a note in the application', Channel::App->value)];
        if ($channel === null || $channel === Channel::Sms) {
            return $context->gap(
                'choose how',
                $node->child('channel')->at,
                Editor::choose('How it goes', $channels),
                'wrong_type',
                'A list goes by e-mail, or as a note inside the application.',
            );
        }
        $context->choice($channel === Channel::Email ? 'an e-mail' : 'a note', WordRole::Value, $node->child('channel')->at, $channels);
        $line = Editor::line('Subject', self::SUBJECT_LENGTH);
        $subject = trim($node->child('subject')->text() ?? '');
        if ($subject === '' || mb_strlen($subject) > self::SUBJECT_LENGTH) {
            $context->gap(
                'write a subject',
                $node->child('subject')->at,
                $line,
                $subject === '' ? 'missing' : 'too_long',
                'Give the list a subject of at most '.self::SUBJECT_LENGTH.' characters.',
            );
        } else {
            $context->word("“{$subject}”", WordRole::Value, $node->child('subject')->at, $line);
        }
        $context->glue('with');
        $columns = ListSection::columns($context, $node->child('columns'));
        [$by, $days, $working] = self::window($context, $node, $type);
        $sections = [new ListSection($type, null, null, $columns, $by), ...self::further($context, $node->child('and'), $by !== null)];
        $tasks = self::tasks($context, $node->child('tasks'), $by !== null);

        return $context->problems() > $problems ? null : new self(
            $channel,
            $subject,
            trim($node->child('body')->text() ?? ''),
            $sections,
            $tasks,
            $days,
            $working,
        );
    }

    public function sections(): array
    {
        return $this->sections;
    }

    public function wantsTasks(): bool
    {
        return $this->tasks;
    }

    /** A list is made of many records, so it is never done for one. */
    public function perform(Performance $performance): void
    {
        $performance->failed('The list', 'it is made of records that a timetable puts together');
    }

    public function message(
        Gathered $gathered,
        Person $person,
        Facts $facts,
        Display $display,
        \DateTimeZone $zone,
        WorkingCalendar $calendar,
    ): ?array {
        $letter = new ListLetter($facts, $display, $zone, $calendar, $this->days, $this->workingDays);
        foreach ($this->sections as $index => $section) {
            $letter->add($section, $gathered->records[$index] ?? []);
        }
        if ($this->tasks) {
            $letter->tasks($gathered->tasks);
        }
        if ($letter->isEmpty()) {
            return null;
        }
        $html = ($this->intro === '' ? '' : '<p>'.nl2br(htmlspecialchars($this->intro)).'</p>').$letter->html();
        $text = ($this->intro === '' ? '' : "{$this->intro}\n\n").$letter->text();
        $to = new Address($person->name, $this->channel === Channel::App ? '' : $person->email, $person->id);

        $records = array_sum(array_map(count(...), $gathered->records)) + ($this->tasks ? count($gathered->tasks) : 0);

        return [
            new Message($this->channel, [$to], [], null, $this->subject, RichText::mail($html), trim($text), $person->name, []), $records,
            $letter->left,
        ];
    }

    /** @return list<ListSection> records of other types on the same list */
    private static function further(Context $context, Node $list, bool $parted): array
    {
        $sections = [];
        foreach ($list->items() as $item) {
            $sections[] = ListSection::read($context, $item, $parted);
        }
        if (count($list->items()) > self::MOST_SECTIONS) {
            $context->problem($list->at, 'too_many', 'A list takes at most '.self::MOST_SECTIONS.' further sorts of record.');
        }
        $context->more(
            '+ other records',
            "{$list->at}/".count($list->items()),
            Editor::choose('Records too', static fn (): array => ListSection::offers($context)),
        );

        return array_values(array_filter($sections));
    }

    /** A person's open tasks, which have no other order than when they are due. */
    private static function tasks(Context $context, Node $node, bool $parted): bool
    {
        if ($node->raw === true && ! $parted) {
            $context->problem($node->at, 'wrong_type', 'Tasks stand on a list by when they are due: choose the date of the records too.');
        }
        $offers = static fn (): array => [new Offer('and their open tasks', true), new Offer('without their tasks', null)];
        if ($node->raw === true) {
            $context->choice('; and their open tasks', WordRole::Value, $node->at, $offers);
        } elseif ($parted) {
            $context->more('+ their tasks', $node->at, Editor::choose('Their tasks', $offers));
        }

        return $node->raw === true;
    }

    /** @return array{?Field, int, bool} */
    private static function window(Context $context, Node $node, RecordType $type): array
    {
        $by = $node->child('by');
        $dates = static fn (): array => [
            new Offer('in one list', null),
            ...array_map(
                static fn (Field $field): Offer => new Offer($field->label, $field->name, 'By when it is due'),
                array_values(array_filter($type->fields, static fn (Field $field): bool => $field->type->isMoment())),
            ),
        ];
        if ($by->isMissing()) {
            $context->choice('in one list', WordRole::Value, $by->at, $dates);

            return [null, 0, false];
        }
        $field = $type->field($by->text() ?? '');
        if ($field === null || ! $field->type->isMoment()) {
            $context->gap(
                $by->text() ?? 'choose a date',
                $by->at,
                Editor::choose('By when it is due', $dates),
                'unknown_field',
                'Choose the date that parts what is late from what is to come.',
            );

            return [null, 0, false];
        }
        $context->glue('by');
        $context->choice($field->label, WordRole::Field, $by->at, $dates);
        $days = $node->child('days');
        $number = Editor::number('Days ahead', 0, self::MOST_DAYS);
        $working = $node->child('workingDays')->raw === true;
        if (! is_int($days->raw) || $days->raw < 0 || $days->raw > self::MOST_DAYS) {
            $context->gap('how many days ahead', $days->at, $number, 'out_of_range', 'Look from 0 to '.self::MOST_DAYS.' days ahead.');

            return [$field, 0, $working];
        }
        $context->glue(': late, today, and the next');
        $context->word((string) $days->raw, WordRole::Value, $days->at, $number);
        $context->choice(
            $working ? 'working days' : 'days',
            WordRole::Value,
            $node->child('workingDays')->at,
            static fn (): array => [new Offer('working days', true), new Offer('days', null)],
        );

        return [$field, $days->raw, $working];
    }
}
