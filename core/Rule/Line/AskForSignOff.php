<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\SignOffAsked;
use VividLedger\Rule\Timing\WhenSignedOff;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\HoldSlot;
use VividLedger\SignOff\Route;
use VividLedger\SignOff\RouteStep;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\SignOff\StepsSlot;
use VividLedger\Template\Template;
use VividLedger\Template\TemplateText;
use VividLedger\Words\Words;

/** Asks people to sign something off, step after step; other lines wait for how it ends. */
final readonly class AskForSignOff implements AsksSignOff, BringsLines
{
    private const REASON_LENGTH = 500;

    private function __construct(
        private Route $route,
        private ?Template $why,
        private ?Field $filled = null,
        private Hold $hold = Hold::Nothing,
    ) {
    }

    public static function kind(): string
    {
        return 'sign_off';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['steps' => [RouteStep::BEGUN]])
            ->says('Ask for a sign-off[ because {why}] by {steps}[; {filled} has to be filled in][; {hold}]')
            ->orSaid(
                '(ask for|get|request|require) [an |the |a ](approval|sign-off|sign off|okay|ok)[ because {why}] (by|of|from) {steps}',
                '(have|let) {steps} (approve|sign off)[ it]',
                '(ask|send it to|submit it to) {steps} for [an |a ](approval|sign-off|sign off|okay|ok)',
                '(ask) {steps} to (approve|sign off|sign it off|approve it)[ it]',
                '(needs|it needs|wait for) [an |the |a ](approval|sign-off|sign off|okay|ok) (by|of|from) {steps}',
                '{steps} (must|has to|have to|needs to) (approve|sign off|sign it off|approve it|agree)[ it]',
            )
            ->slot('steps', new StepsSlot)->slot('filled', new OwnField(
                static fn (Field $field): bool => $field->isSettable(),
                new Gap('choose a field', 'Choose the field that has to be filled in.', '+ has to be filled in'),
                'nothing',
            ))->slot('hold', new HoldSlot)->slot('why', new TemplateText(
                new Gap('', '', '+ because'),
                'What they are to know',
                true,
                self::REASON_LENGTH,
                80,
            ));
    }

    public static function label(): string
    {
        return 'Ask for a sign-off';
    }

    /** Cases for each way in which it ends: agreed, declined, timed out. */
    public static function brings(string $name): array
    {
        $stands = static fn (SignOffStatus $status): array => ['that' => ['kind' => 'all', 'of' => [
            ['kind' => 'sign_off_is', 'called' => $name, 'status' => $status->value],
        ]]];

        return [
            ['kind' => 'if', 'at' => WhenSignedOff::over($name)] + $stands(SignOffStatus::Agreed),
            ['kind' => 'or_if'] + $stands(SignOffStatus::Declined), ['kind' => 'or_if'] + $stands(SignOffStatus::TimedOut),
        ];
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self(
            $read->the('steps', Route::class),
            $read->any('why', Template::class),
            $read->any('filled', Field::class),
            $read->any('hold', Hold::class) ?? Hold::Nothing,
        );
    }

    public function route(): Route
    {
        return $this->route;
    }

    public function locks(): bool
    {
        return $this->hold !== Hold::Nothing;
    }

    public function waitedAs(): WaitedSort
    {
        return WaitedSort::SignOff;
    }

    /** Lines can wait for each step, counted from 1. */
    public function ends(): array
    {
        return array_map(strval(...), range(1, count($this->route->steps)));
    }

    public function perform(ActionContext $performance): void
    {
        $placed = $performance->placed;
        // In a save, whoever saves hears of it; a line whose time comes has nobody to tell, and asks all the same.
        if ($this->filled !== null && $performance->change->event === null
            && in_array($performance->record->value($this->filled->name), [null, ''], true)) {
            $performance->refuse($this->filled, Words::say(
                '{field} has to be filled in: it is what they decide on.',
                field: $this->filled->label,
            ));

            return;
        }
        $why = $this->why?->lines($performance->view(), $performance->display, $performance->number()) ?? '';
        $clerk = new Clerk($this->route, $performance->view(), $performance->zone);
        $moved = $clerk->begin($performance->change->actor);
        $performance->askFor(new SignOffAsked(
            record: $performance->record, moved: $moved, route: $this->route, place: $placed->place ?? 0, key: $placed->key ?? '',
            why: mb_substr($why, 0, self::REASON_LENGTH), wakes: $clerk->wakesAt($moved->signOff), hold: $this->hold,
            tells: $performance->facts->told(),
        ));
    }
}
