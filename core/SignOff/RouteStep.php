<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionSlot;
use VividLedger\People\Who;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Addable;
use VividLedger\Shape\Slot\Also;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\LengthOf;
use VividLedger\Shape\Slot\Often;
use VividLedger\Shape\TimeForm;
use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** One step of a route: whom it asks, in which order, what counts, and what happens when nobody answers. */
final readonly class RouteStep
{
    /** What a new one begins with. */
    public const BEGUN = ['who' => ['kind' => 'people', 'people' => [['kind' => 'manager', 'of' => ['kind' => 'owner']]]]];

    private const MOST_NEEDED = 20;

    private const MOST_TIMES = 50;

    /**
     * @param  bool  $inTurn  one after another, and not side by side
     * @param  ?int  $needed  how many have to agree; null for all
     * @param  ?Condition  $onlyIf  read when the step begins; one that does not hold is left out
     * @param  ?Condition  $until  what has to hold besides a yes: who is asked next is asked until it does
     * @param  list<Field>  $correct  what those who are asked may correct while they decide
     * @param  bool  $task  whether those who are asked are given a task, too
     * @param  ?Due  $within  how long each has; null for as long as they like
     * @param  ?Due  $remindEvery  after they were asked, and again
     * @param  ?int  $mostReminders  in each round; null for as long as nobody has decided
     * @param  int  $again  how often somebody late is asked again before their time has run out for good
     * @param  ?Who  $instead  to whom it is passed on
     */
    public function __construct(
        public Approvers $who,
        public bool $inTurn = false,
        public ?int $needed = null,
        public ?Condition $onlyIf = null,
        public ?Due $within = null,
        public ?Due $remindEvery = null,
        public ?int $mostReminders = null,
        public WhenLate $late = WhenLate::Stop,
        public int $again = 0,
        public ?Who $instead = null,
        public ?Condition $until = null,
        public array $correct = [],
        public bool $task = false,
    ) {
    }

    /** "the owner’s manager and Ulla Verne, 1 of them being enough, within 3 days, and then ask the next person up" */
    public static function shape(): Shape
    {
        return Shape::of()
            ->says('{who}[, {inTurn}][, {needed} of them being enough][, who may correct {correct}][, {task}][, within {within}]'
                .'[, reminded every {remind}][, {reminders} at most][, asked again {again}]'
                .'[, and then {late}[ to {instead}]][, until {until}][, asked only if {onlyIf}]')
            ->orSaidWith(
                ['needed' => 1],
                '{who}[, {inTurn}], (one is enough|one of them is enough|any one of them|either is enough|any of them)[, within {within}]',
            )
            ->orSaidWith(
                ['needed' => 1],
                '(one of|any one of|anyone of|anyone in|anyone from|anybody in) {who}[, within {within}]',
            )
            ->slot('who', new ApproversSlot)
            ->slot('inTurn', new Also('one after another', 'side by side'))
            ->slot('needed', new Addable(
                new Counted(1, self::MOST_NEEDED, label: 'How many are enough'),
                '+ so many are enough',
                Editor::number('How many are enough', 1, self::MOST_NEEDED),
            ))
            ->slot('within', new Addable(new LengthOf, '+ within', TimeForm::length('Within')))
            ->slot('remind', new Addable(new LengthOf(bare: true), '+ reminded', TimeForm::length('Reminded every')))
            ->slot('reminders', self::often('How many reminders at most', '+ so often at most', 'remind'))
            ->slot('again', self::often('How often they are asked again', '+ asked again', 'within'))
            ->slot('late', new LateSlot)->slot('instead', new InsteadSlot)
            ->slot('correct', new CorrectSlot)->slot('task', new Also('with a task', 'without a task'))
            ->slot('until', new ConditionSlot(more: '+ until', margin: 'until'))
            ->slot('onlyIf', new ConditionSlot(more: '+ only if', margin: 'only if'));
    }

    /** @param  string  $with  what it is offered with: a limit to reminders makes sense only where there are reminders */
    private static function often(string $label, string $more, string $with): Addable
    {
        $often = new Often(self::MOST_TIMES, $label);

        return new Addable($often, $more, $often->editor(), static fn (Filled $around): bool => $around->raw($with) !== null);
    }

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);
        if ($read === null) {
            return null;
        }
        $late = $read->any('late', WhenLate::class);
        if ($late === WhenLate::PassOn && $read->any('instead', Who::class) === null) {
            return null;
        }
        if ($late !== null && $read->any('within', Amount::class) === null) {
            return $context->problem($node->child('within')->at, 'missing', Words::say('Say within which time they are to answer.'));
        }
        foreach (['again' => 'within', 'reminders' => 'remind'] as $often => $needs) {
            if ($read->raw($often) !== null && $read->any($needs, Amount::class) === null) {
                return $context->problem($node->child($needs)->at, 'missing', $needs === 'within'
                    ? Words::say('Say within which time they are to answer.')
                    : Words::say('Say how often they are reminded.'));
            }
        }
        $length = static fn (string $key): ?Due => ($amount = $read->any($key, Amount::class)) === null ? null : new Due($amount);

        return new self(
            who: $read->the('who', Approvers::class), inTurn: $read->flag('inTurn'),
            needed: $read->raw('needed') === null ? null : $read->number('needed'), onlyIf: $read->any('onlyIf', Condition::class),
            within: $length('within'), remindEvery: $length('remind'),
            mostReminders: $read->raw('reminders') === null ? null : $read->number('reminders'),
            late: $late ?? WhenLate::Stop,
            again: ($read->raw('again') === null ? 0 : $read->number('again')) + ($late === WhenLate::AskAgain ? 1 : 0),
            instead: $read->any('instead', Who::class), until: $read->any('until', Condition::class),
            correct: $read->all('correct', Field::class), task: $read->flag('task'),
        );
    }
}
