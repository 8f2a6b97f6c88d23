<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Message\Channel;
use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Letter\LetterName;
use VividLedger\Rule\Letter\LetterText;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\InSave;
use VividLedger\Rule\Performance\SlipSent;
use VividLedger\Rule\Recipient\Recipients;
use VividLedger\Rule\Recipient\RecipientsSlot;
use VividLedger\Rule\Slip\SlipForm;
use VividLedger\Rule\Slip\SlipName;
use VividLedger\Rule\Slip\SlipSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Addable;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\LengthOf;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\TimeForm;
use VividLedger\Slip\NextInLine;
use VividLedger\Slip\NextSlot;
use VividLedger\Slip\Question;
use VividLedger\Slip\Questions;
use VividLedger\Slip\QuestionsSlot;
use VividLedger\Slip\Reach;
use VividLedger\Slip\SlipClerk;
use VividLedger\Slip\SlipPlan;
use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** Sends somebody a page on which they answer, reminds them, and passes it on to the next when they do not. */
final readonly class SendSlip implements Line, Reaches, SendsSlip
{
    private const MOST_LETTERS = 10;

    private function __construct(private Recipients $to, private SlipForm $form, private SlipPlan $plan)
    {
    }

    public static function kind(): string
    {
        return 'slip';
    }

    public static function shape(): Shape
    {
        $further = '[, reminded every {remind}][, by text message behind {texts} letters][, answered within {within}][, and then {then}]';
        $said = '[, (remind|reminded|nudge|nudged)[ them] every {remind}][, by text message behind {texts} letters]'
            .'[, ([to be ]answered[ ]|)within {within}][, [and ]then {then}]';
        $texts = 'By text message behind so many letters';

        return Shape::of(self::kind())->starts(['to' => [], 'subject' => '', 'body' => '', 'asks' => [Questions::BEGUN]])
            ->says("Send {to} the reply slip {slip}{$further}")
            ->says("Send {to} a reply slip with the letter {letter} asking {asks}{$further}")
            ->says("Send {to} a reply slip[ about {subject}][ saying {body}] asking {asks}{$further}")
            ->orSaid(
                "(send|mail|give) {to} [the |a ][reply ]slip {slip}{$said}",
                "(send|mail) the [reply ]slip {slip} to {to}{$said}",
                "(ask) {to} with [the |a ][reply ]slip {slip}{$said}",
                "(send|mail|give) {to} a [reply ]slip[ about {subject}][ saying {body}] (asking|that asks|with the question) {asks}{$said}",
                "ask {to} (on|with) a [reply ]slip[ about {subject}][,] {asks}{$said}",
            )
            ->shows("Send {to} {form}{$further}")
            ->slot('to', new RecipientsSlot(1, 1))->slot('form', new SlipSlot)->may('slip', 'letter')
            ->slot('slip', new SlipName)->slot('letter', new LetterName)->slot('subject', new Quoted(200, 0))
            ->slot('body', new LetterText)->slot('asks', new QuestionsSlot)
            ->slot('remind', new Addable(new LengthOf(bare: true), '+ reminded', TimeForm::length('Reminded every')))
            ->slot('texts', new Addable(
                new Counted(1, self::MOST_LETTERS, label: $texts),
                '+ then by text message',
                Editor::number($texts, 1, self::MOST_LETTERS),
            ))
            ->slot('within', new Addable(new LengthOf, '+ answered within', TimeForm::length('Answered within')))
            ->slot('then', new NextSlot);
    }

    public static function label(): string
    {
        return 'Send a reply slip';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);
        if ($read === null) {
            return null;
        }
        $next = $read->any('then', NextInLine::class);
        if ($next !== null && $read->any('within', Amount::class) === null) {
            return $context->problem($node->child('within')->at, 'missing', Words::say('Say within which time they are to answer.'));
        }
        $length = static fn (string $key): ?Due => ($amount = $read->any($key, Amount::class)) === null ? null : new Due($amount);

        return new self($read->the('to', Recipients::class), $read->the('form', SlipForm::class), new SlipPlan(
            $length('remind'), $read->raw('texts') === null ? null : $read->number('texts'), $length('within'), $next,
        ));
    }

    public function waitedAs(): WaitedSort
    {
        return WaitedSort::Slip;
    }

    public function ends(): array
    {
        return array_merge(...array_map(
            static fn (Question $question): array => $question->isChoice() ? $question->choices() : [],
            $this->form->questions,
        ));
    }

    public function form(): SlipForm
    {
        return $this->form;
    }

    public function plan(): SlipPlan
    {
        return $this->plan;
    }

    public function reach(ActionContext $performance): Reach
    {
        $mail = $this->to->reach($performance, Channel::Email);
        $text = $this->to->reach($performance, Channel::Sms);

        return new Reach($mail->addresses[0] ?? null, $text->addresses[0] ?? null, $mail->path);
    }

    public function perform(ActionContext $performance): void
    {
        $reach = $this->reach($performance);
        $address = $reach->mail ?? $reach->text;
        if ($address !== null && ! $performance->mayWrite([$address], 'The reply slip')) {
            return;
        }
        $field = $this->plan->next?->field();
        $first = $field === null ? null : $performance->record->value($field->name);
        $way = new InSave($this, $performance);
        $clerk = new SlipClerk($this->plan, $performance->view(), $performance->zone, $way);
        $moved = $clerk->begin($reach, is_int($first) ? $first : null);
        $view = $performance->view();
        $display = $performance->display;
        $performance->sendSlip(new SlipSent(
            record: $performance->record, moved: $moved, form: $this->form, place: $performance->placed->place ?? 0,
            key: $performance->placed->key ?? '', subject: $this->form->letter->subject($view, $display, $performance->number()),
            html: $this->form->letter->html($view, $display, $performance->number()), channel: $clerk->channel($moved->slip),
            wakes: $clerk->wakesAt($moved->slip), tells: $performance->facts->told(),
        ));
    }
}
