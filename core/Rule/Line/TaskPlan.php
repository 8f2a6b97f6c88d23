<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\People\Finder;
use VividLedger\People\Person;
use VividLedger\People\PersonExpression;
use VividLedger\People\PersonExpressions;
use VividLedger\People\PersonSlot;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Far;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\MomentPath;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordRole;
use VividLedger\Template\Template;
use VividLedger\Time\OutOfTime;

/** One task as a line plans it: title, notes, priority, who, when, and the contact it stands on besides the record. */
final readonly class TaskPlan
{
    public const TITLE_LENGTH = 200;

    public const NOTES_LENGTH = 2000;

    private function __construct(
        private Template $title,
        public PersonExpression $to,
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

        return $shape->says('Give '.self::SAID)->orSaid(
            "(give|assign|hand|set|make|create for|add for|create) {to} [a |the |another ][{priority} ]task[ to| called| titled| named|:][ {title}][ with {priority}]{$rest}",
            "(give|assign|create|add|make|open|set up|set|start|new|put) [a |the |another ][new ][{priority} ]task[ called| titled| named|:][ {title}] (for|to) {to}[ with {priority}]{$rest}",
            '(give|assign|create|add|make|open|set up|set|put) [a |the |another ][new ][{priority} ]task[ called| titled| named|:][ {title}]( due {due}) (for|to) {to}',
            "(task|a task|to-do|a to-do|new task) for {to}[:|,]( {title}){$rest}", "(task|a task|new task|to-do) {title} for {to}{$rest}",
            "task {to} with {title}{$rest}", "(create|add|make|open|set up|new) [a |the ][{priority} ]task for {to}[ called| titled|:] {title}{$rest}",
            "{to} (gets|has to do|should do|receives|is given) [a |the ][{priority} ]task[ called| titled|:][ {title}]{$rest}",
            "(give|assign) {to} {title} as a [{priority} ]task{$rest}", "(give|assign) [a |the ][{priority} ]task to {to}[ called| titled|:][ {title}]{$rest}",
            "(give|create|add|assign) [a |the |another ](to-do|to do|follow-up|follow up|job) [{title} ](for|to) {to}[ {title}]{$rest}",
            "(give|assign) {to} [a |the |another ](to-do|to do|follow-up|follow up|job|follow-up task)[ {title}]{$rest}",
            "have {to} do {title}{$rest}", "ask {to} to do {title}{$rest}",
        )->takes(self::slots())->needs('title');
    }

    /** @return array<string, Slot> */
    public static function slots(): array
    {
        return [
            'to' => new PersonSlot,
            'priority' => Labels::of(
                ['low-priority' => 'low', 'normal-priority' => 'normal', 'high-priority' => 'high'],
                [
                    'low priority' => 'low', 'normal priority' => 'normal', 'high priority' => 'high', 'important' => 'high', 'urgent' => 'high',
                    'a low priority' => 'low', 'a normal priority' => 'normal', 'a high priority' => 'high', 'unimportant' => 'low',
                    'priority high' => 'high', 'priority low' => 'low',
                ],
            ),
            'title' => new Quoted(self::TITLE_LENGTH), 'contact' => new FieldPath, 'due' => new TaskDueSlot,
            // "In 2 days" can be when the task is due, and when it is given.
            'by' => new Keyed('due', Shape::of()->says('(within|in) {length} {rest}')
                ->says('(by|for|until) tomorrow {rest}', ['amount' => 1, 'unit' => 'day'])->says('by {far} {from} {rest}')
                ->says('(by|for|until) {from} {rest}', ['amount' => 0, 'unit' => 'day'])
                ->says('(for|by) today {rest}', ['amount' => 0, 'unit' => 'day'])
                ->slot('length', new Length)->slot('rest', new DueRest)->slot('far', new Far('on'))->slot('from', new MomentPath)), 'notes' => new Quoted(self::NOTES_LENGTH, 0),
        ];
    }

    public static function read(Context $context, Node $node): ?self
    {
        $problems = $context->problems();
        $to = PersonExpressions::word($context, $node->child('to'));
        $context->glue('a');
        $priority = self::priority($context, $node->child('priority'));
        $context->glue('task');
        $title = self::title($context, $node->child('title'));
        $contact = self::contact($context, $node->child('contact'));
        $context->glue('due');
        $due = TaskDue::read($context, $node->child('due'));
        $notes = self::notes($context, $node->child('notes'));
        self::further($context, $node);
        if ($to === null || $title === null || $due === false || $context->problems() > $problems) {
            return null;
        }

        return new self($title, $to, $due, $notes, $priority, $contact);
    }

    public function perform(Performance $performance): void
    {
        $found = Finder::find($this->to, $performance);
        $title = $this->title->render($performance->view(), $performance->display, $performance->number());
        [$due, $noDue] = $this->due($performance, $found->person);
        $about = $this->contact === null ? null : $performance->view()->value($this->contact);
        $performance->give(new TaskGiven(
            mb_substr($title === '' ? 'Task' : $title, 0, self::TITLE_LENGTH),
            $found->person,
            $found->path,
            $found->stoodIn,
            $due,
            $performance->record,
            mb_substr(
                $this->notes?->lines($performance->view(), $performance->display, $performance->number()) ?? '',
                0,
                self::NOTES_LENGTH,
            ),
            $this->priority,
            is_int($about) ? [(string) $this->contact->field->target, $about] : null,
        ));
        if ($noDue !== '') {
            $performance->failed('The due date', "{$noDue}, so the task has none");
        }
    }

    /** @return array{?\DateTimeImmutable, string} when the task falls due, and why it has no date although it was to have one */
    private function due(Performance $performance, ?Person $person): array
    {
        try {
            $due = $this->due?->at($performance, $person);
        } catch (OutOfTime $never) {
            return [null, $never->getMessage()];
        }

        return [$due, $due === null && $this->due !== null ? "{$this->due->emptyBase()} is empty" : ''];
    }

    private static function priority(Context $context, Node $node): TaskPriority
    {
        $offers = self::priorities(...);
        if ($node->raw === null) {
            return TaskPriority::Normal;
        }
        $priority = TaskPriority::tryFrom($node->text() ?? '');
        if ($priority === null) {
            $context->gap('choose a priority', $node->at, Edit::Offer, 'wrong_type', 'A task has low, normal or high priority.', $offers);
        } else {
            $context->choice("{$priority->value}-priority", WordRole::Value, $node->at, $offers);
        }

        return $priority ?? TaskPriority::Normal;
    }

    /** What can be added, behind the sentence. */
    private static function further(Context $context, Node $node): void
    {
        if ($node->child('priority')->raw === null) {
            $context->more('+ priority', $node->child('priority')->at, Edit::Offer, self::priorities(...));
        }
        if ($node->child('contact')->raw === null && count(self::contacts($context)) > 1) {
            $context->more('+ on a contact too', $node->child('contact')->at, Edit::Offer, static fn (): array => self::contacts($context));
        }
    }

    /** @return list<Offer> */
    private static function priorities(): array
    {
        return array_map(
            static fn (TaskPriority $priority): Offer => new Offer(
                "{$priority->value} priority",
                $priority === TaskPriority::Normal ? null : $priority->value,
            ),
            TaskPriority::cases(),
        );
    }

    /** @return list<Offer> */
    private static function contacts(Context $context): array
    {
        $references = array_values(array_filter(
            $context->type->ownFields(),
            static fn (Field $field): bool => $field->type === FieldType::Reference,
        ));

        return [
            new Offer('only the record', null),
            ...array_map(static fn (Field $field): Offer => new Offer("the {$field->label}", $field->name), $references),
        ];
    }

    private static function title(Context $context, Node $node): ?Template
    {
        $text = $node->text();
        if ($text === null || trim($text) === '') {
            return $context->gap('write a title', $node->at, Edit::Title, 'missing', 'Give the task a title.');
        }
        $context->word("“{$text}”", WordRole::Value, $node->at, Edit::Title);
        if (mb_strlen($text) > self::TITLE_LENGTH) {
            return $context->problem(
                $node->at,
                'too_long',
                'A title has at most '.self::TITLE_LENGTH.' characters; this has '.mb_strlen($text).'.',
            );
        }

        return Template::read($context, $text, $node->at);
    }

    private static function notes(Context $context, Node $node): ?Template
    {
        $text = trim($node->text() ?? '');
        if ($text === '') {
            $context->more('+ notes', $node->at, Edit::Notes);

            return null;
        }
        $context->glue('with the notes');
        $context->word(
            '“'.mb_strimwidth((string) preg_replace('/\s+/u', ' ', $text), 0, 60, '…').'”',
            WordRole::Value,
            $node->at,
            Edit::Notes,
        );

        return mb_strlen($text) > self::NOTES_LENGTH
            ? $context->problem($node->at, 'too_long', 'Notes have at most '.self::NOTES_LENGTH.' characters.')
            : Template::read($context, $text, $node->at);
    }

    private static function contact(Context $context, Node $node): ?Path
    {
        $offers = static fn (): array => self::contacts($context);
        if ($node->raw === null) {
            return null;
        }
        $path = $context->schema->path($context->type, $node->text() ?? '');
        if ($path === null || $path->field->type !== FieldType::Reference) {
            return $context->gap(
                $node->text() ?? '?',
                $node->at,
                Edit::Offer,
                'unknown_field',
                'Choose the reference to the contact.',
                $offers,
            );
        }
        $context->glue('also on');
        $context->choice("the {$path->label()}", WordRole::Field, $node->at, $offers);

        return $path;
    }
}
