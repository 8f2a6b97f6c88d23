<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\House\Person;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\Finder;
use VividLedger\Schema\Path;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Far;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\MomentPath;
use VividLedger\Template\Template;
use VividLedger\Template\TemplateText;
use VividLedger\Time\OutOfTime;

/** One task as a line plans it: title, notes, priority, who, when, and the contact it stands on besides the record. */
final readonly class TaskPlan
{
    public const TITLE_LENGTH = 200;

    public const NOTES_LENGTH = 2000;

    /** What a new one begins with. */
    public const BEGUN = ['to' => ['kind' => 'owner'], 'title' => '', 'due' => ['amount' => 1, 'unit' => 'day']];

    private function __construct(
        private Template $title,
        public Who $to,
        private ?TaskDue $due,
        private ?Template $notes,
        private TaskPriority $priority,
        private ?Path $contact,
    ) {
    }

    public const SAID = '{to} a [{priority} ]task[ {title}][ also on {contact}][ due {due}][ with the notes {notes}]';

    /** The sentence of one task. */
    public static function said(Shape $shape): Shape
    {
        $rest = '[, also on {contact}][(, due| due on| due by) {due}| {by}][, with [the |]notes {notes}]';

        // "A day before Due" can be when the task is due, and when it is given.
        return $shape->says('Give '.self::SAID)->says('Give {to} a [{priority} ]task {title} {before}')->orSaid(
            '(give|assign|hand|set|make|create for|add for|create) {to} [a |the |another ][{priority} ]task[ to| called| titled| '
                ."named|:][ {title}][ with {priority}]{$rest}",
            '(give|assign|create|add|make|open|set up|set|start|new|put) [a |the |another ][new ][{priority} ]task[ called| titled|'
                ." named|:][ {title}] (for|to) {to}[ with {priority}]{$rest}",
            '(give|assign|create|add|make|open|set up|set|put) [a |the |another ][new ][{priority} ]task[ called| titled| named|'
                .':][ {title}]( due {due}) (for|to) {to}',
            "(task|a task|to-do|a to-do|new task) for {to}[:|,]( {title}){$rest}",
            "(task|a task|new task|to-do) {title} (for|to) {to}{$rest}",
            "[a |an ]{priority} task {title} (for|to) {to}{$rest}",
            "task {to} with {title}{$rest}",
            "(create|add|make|open|set up|new) [a |the ][{priority} ]task for {to}[ called| titled|:] {title}{$rest}",
            "{to} (gets|has to do|should do|receives|is given) [a |the ][{priority} ]task[ called| titled|:][ {title}]{$rest}",
            "(give|assign) {to} {title} as a [{priority} ]task{$rest}",
            "(give|assign) [a |the ][{priority} ]task to {to}[ called| titled|:][ {title}]{$rest}",
            "(give|create|add|assign) [a |the |another ](to-do|to do|follow-up|follow up|job) [{title} ](for|to) {to}[ {title}]{$rest}",
            "(give|assign) {to} [a |the |another ](to-do|to do|follow-up|follow up|job|follow-up task)[ {title}]{$rest}",
            "have {to} do {title}{$rest}", "ask {to} to do {title}{$rest}",
        )->takes(self::slots())->needs('title')->always('due');
    }

    /** @return array<string, Slot> */
    public static function slots(): array
    {
        return [
            'to' => new PersonSlot,
            'priority' => new PrioritySlot,
            'title' => new TemplateText(
                new Gap('write a title', 'Give the task a title.'),
                'Title of the task',
                most: self::TITLE_LENGTH,
            ), 'contact' => new ContactSlot, 'due' => new TaskDueSlot,
            // "In 2 days" can be when the task is due, and when it is given.
            'before' => new Keyed('due', Shape::of()->says('{far} {from} {rest}')
                ->slot('far', new Far('on'))->slot('from', new MomentPath)->slot('rest', new DueRest)),
            'by' => new Keyed('due', Shape::of()->says('(within|in) {length} {rest}')
                ->says('(by|for|until) tomorrow {rest}', ['amount' => 1, 'unit' => 'day'])
                ->says('by {far} {from} {rest}')->says('{far} {from} {rest}')
                ->says('(by|for|until) {from} {rest}', ['amount' => 0, 'unit' => 'day'])
                ->says('(for|by) today {rest}', ['amount' => 0, 'unit' => 'day'])
                ->slot('length', new Length)->slot('rest', new DueRest)->slot('far', new Far('on'))
                ->slot('from', new MomentPath)), 'notes' => new TemplateText(
                    new Gap('write the notes', 'Write the notes.', '+ notes'),
                    'Notes',
                    true,
                    self::NOTES_LENGTH,
                    60,
                ),
        ];
    }

    public static function of(Filled $read): self
    {
        return new self(
            title: $read->the('title', Template::class), to: $read->the('to', Who::class), due: $read->any('due', TaskDue::class),
            notes: $read->any('notes', Template::class), priority: $read->any('priority', TaskPriority::class) ?? TaskPriority::Normal,
            contact: $read->any('contact', Path::class),
        );
    }

    public function perform(ActionContext $performance): void
    {
        $found = Finder::find($this->to, $performance);
        $title = $this->title->render($performance->view(), $performance->display, $performance->number());
        [$due, $noDue] = $this->due($performance, $found->person);
        $about = $this->contact === null ? null : $performance->view()->value($this->contact);
        $performance->give(new TaskGiven(
            title: mb_substr($title === '' ? 'Task' : $title, 0, self::TITLE_LENGTH), person: $found->person, path: $found->path,
            stoodIn: $found->stoodIn, due: $due, record: $performance->record,
            notes: mb_substr(
                $this->notes?->lines($performance->view(), $performance->display, $performance->number()) ?? '',
                0,
                self::NOTES_LENGTH,
            ),
            priority: $this->priority, about: is_int($about) ? [(string) $this->contact->field->target, $about] : null,
        ));
        if ($noDue !== '') {
            $performance->failed('The due date', "{$noDue}, so the task has none");
        }
    }

    /** @return array{?\DateTimeImmutable, string} when the task falls due, and why it has no date although it was to have one */
    private function due(ActionContext $performance, ?Person $person): array
    {
        try {
            $due = $this->due?->at($performance, $person);
        } catch (OutOfTime $never) {
            return [null, $never->getMessage()];
        }

        return [$due, $due === null && $this->due !== null ? "{$this->due->emptyBase()} is empty" : ''];
    }
}
