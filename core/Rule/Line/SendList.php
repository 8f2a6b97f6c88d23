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
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Slot\Quoted;
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
        return Shape::of(self::kind())->starts(['subject' => 'Your list', 'columns' => []])->says(
            'Send them {channel} about {subject} with the columns {columns}[, by {by} up to {ahead} ahead][, and {and}][, and '
                .'their open tasks{tasks}]'
                .'[, saying {body}]',
        )->orSaid('Send them {channel} about {subject} with {columns}[, by {by} up to {ahead} ahead][, and {and}][, and their open '
            .'tasks{tasks}]')
            ->slot('channel', new ChannelSlot([Channel::Email, Channel::App]))->may('channel')
            ->shows('Send them {channel} {subject} with {columns} {by}{ahead} {and} {tasks}')
            ->slot('subject', new ListSubject)
            ->slot('columns', new Columns(new Many(new FieldPath, 'and', most: ListSection::MOST_COLUMNS)))
            ->slot('by', new ListDate(new OwnField, isFirst: true))->slot('ahead', new DaysAhead)
            ->slot('and', new FurtherSections)->slot('tasks', new TheirTasks)->slot('body', new Quoted(2000, 0));
    }

    public static function label(): string
    {
        return 'Send a list';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);
        if ($read === null) {
            return null;
        }
        $by = $read->any('by', Field::class);
        [$days, $isWorking] = is_array($read->raw('ahead')) ? $read->raw('ahead') : [0, false];
        $further = $read->all('and', ListSection::class);

        return new self(
            channel: $read->the('channel', Channel::class), subject: $read->text('subject'),
            intro: trim($node->child('body')->text() ?? ''),
            sections: [new ListSection($context->type, null, null, $read->all('columns', Path::class), $by), ...$further],
            tasks: $read->flag('tasks'), days: is_int($days) ? $days : 0, workingDays: $isWorking === true,
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
    public function perform(ActionContext $performance): void
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
        $letter = new ListLetter(
            facts: $facts, display: $display, zone: $zone, calendar: $calendar, days: $this->days, workingDays: $this->workingDays,
        );
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
            new Message(
                channel: $this->channel, to: [$to], cc: [], replyTo: null, subject: $this->subject, html: RichText::mail($html),
                text: trim($text), path: $person->name, missing: [],
            ), $records,
            $letter->left,
        ];
    }
}
