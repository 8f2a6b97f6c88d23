<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Condition\ImpliedChoice;
use VividLedger\Facts\Facts;
use VividLedger\Facts\Quiet;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Slot\Wait;
use VividLedger\Time\Due;

/** Nothing of a sort has happened for so long: no change, no activity at all, no reply, or a field has kept a value. */
final readonly class FallsQuiet extends Swept implements WaitsForSilence
{
    private function __construct(
        string $type,
        private Quiet $quiet,
        private Due $due,
    ) {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return 'quiet';
    }

    public static function label(): string
    {
        return 'is quiet for a while';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())
            ->opens(Triggers::chooser(...))->apart('subject', 'byHand')->starts(['of' => 'activity', 'amount' => 3, 'unit' => 'day'])
            ->says('{subject} once it {of} {field} at {value} for {due}[, or by hand{byHand}]', ['of' => QuietSort::VALUE])
            ->says('{subject} once it {of} for {due}[, or by hand{byHand}]')
            ->orSaidWith(
                ['of' => 'change'],
                '{subject} (has not been changed|has not changed|was not changed|is not changed|stays unchanged|is unchanged|has '
                    .'been unchanged|hasn’t changed|hasn’t been changed|'
                    .'is not edited|has not been edited|has not been updated|is not updated|does not change|is left alone|is left '
                        .'unchanged|isn’t changed|'
                    .'hasn’t been edited|hasn’t been updated) [for |in ]{due}[, or by hand{byHand}]',
                '(nobody|no one|no-one) (changes|has changed|edits|has edited|updates|has updated) {subject} [for |in '
                    .']{due}[, or by hand{byHand}]',
                '(nothing|no field) (changes|has changed) [(on|in|about) {subject} ][for |in ]{due}[, or by hand{byHand}]',
                '(after|for) {due} (without|with no) [a |any ](change|changes|edit)[ (to|of|on) {subject}][, or by hand{byHand}]',
                'there (is|has been|was) no change [(to|of|on) {subject} ][for |in ]{due}[, or by hand{byHand}]',
                'no (change|changes) [(to|of|on) {subject} ](for|in) {due}[, or by hand{byHand}]',
            )
            ->orSaidWith(
                ['of' => 'activity'],
                '{subject} (has seen no activity|has no activity|sees no activity|shows no activity|has had no activity|is quiet|'
                    .'has been quiet|stays quiet|goes quiet|falls quiet|is inactive|'
                    .'has been inactive|lies idle|is idle|has been idle|stays idle|is silent|goes silent|has gone quiet|is dormant|'
                        .'sits idle|is without activity) [for |in ]{due}[, or by hand{byHand}]',
                'nothing (happens|has happened|happened) [(on|to|with|around|in) {subject} ][for |in ]{due}[, or by hand{byHand}]',
                '(after|for) {due} (without|with no|of no) [any ]activity[ (on|for) {subject}][, or by hand{byHand}]',
                'there (is|has been|was) no activity [(on|for) {subject} ][for |in |within ]{due}[, or by hand{byHand}]',
                'no activity [on {subject} ](for|in) {due}[, or by hand{byHand}]',
                '(nobody|no one) (does|has done) anything [(on|with) {subject} ][for |in ]{due}[, or by hand{byHand}]',
                '(nobody|no one|no-one) (touches|has touched|works on|has worked on) {subject} [for |in ]{due}[, or by hand{byHand}]',
                '{subject} (sits|lies|stands) still [for |in ]{due}[, or by hand{byHand}]',
                '(after|for) {due} of (silence|inactivity|quiet)[ on {subject}][, or by hand{byHand}]',
                '{due} (pass|go by|passes|goes by|have passed) without [any ]activity[ on {subject}][, or by hand{byHand}]',
                '{due} without [any ]activity[ on {subject}][, or by hand{byHand}]',
            )
            ->orSaidWith(
                ['of' => 'reply'],
                '{subject} (has had no reply|has no reply|gets no reply|has had no answer|gets no answer|is unanswered|has been '
                    .'unanswered|stays unanswered|has not been answered|is not answered|'
                    .'goes unanswered|receives no reply|has got no reply|has not been replied to|is left unanswered) [for |in '
                        .']{due}[, or by hand{byHand}]',
                '(nobody|no one|the customer|the contact|anybody) (does not|doesn’t|has not|did not|hasn’t) (reply|answer|replied|'
                    .'answered|respond) [to {subject} ][for |in |within ]{due}[, or by hand{byHand}]',
                '(nobody|no one|no-one) (replies|has replied|answers|has answered|replied|answered|responds|has responded) [to '
                    .'{subject} ][for |in |within ]{due}[, or by hand{byHand}]',
                '(after|for) {due} (without|with no) (a |an |any |)(reply|answer|response)[ (to|on) {subject}][, or by hand{byHand}]',
                'there (is|has been|was) no (reply|answer|response) [(to|on) {subject} ][for |in |within ]{due}[, or by hand{byHand}]',
                '{subject} (goes|is|stays) {due} without (a |an |any |)(reply|answer|response)[, or by hand{byHand}]',
                '[still ](unanswered|without a reply|without an answer) for {due}[, or by hand{byHand}]',
                'no (reply|answer|response) [(to|on) {subject} ](for|in|within|comes for|arrives for|comes in) {due}[, or by hand{byHand}]',
                'no (reply|answer|response) (comes|arrives|has come) [for |in |within ]{due}[, or by hand{byHand}]',
                '{due} (pass|go by|passes) without (a |an |any |)(reply|answer)[ to {subject}][, or by hand{byHand}]',
                '{due} without (a |an |any |)(reply|answer|response)[, or by hand{byHand}]',
            )
            ->orSaidWith(
                ['of' => 'value'],
                '{subject} (has been|is|stays|stayed|remains|has stayed|has remained|was|sits|has sat|stands|has stood|keeps|is '
                    .'still) [in |at |on |as |with ]{choice} [for |since ][more than |at least |over ]{due}[, or by hand{byHand}]',
                '{field} (has been|is|stays|stayed|remains|has stayed|has remained|has stood|has kept|keeps|is still|stands) [at |'
                    .'on |in ]{value} for [more than |at least ]{due}[, or by hand{byHand}]',
                '(after|for) {due} (in|at|with|of|as|of being) {choice}[, or by hand{byHand}]',
                '{subject} (has kept|keeps|has had|has) {field} [at |on ]{value} for {due}[, or by hand{byHand}]',
                '{choice} for {due}[, or by hand{byHand}]',
                '{due} in {choice}[, or by hand{byHand}]', '{subject} has {field} {value} for {due}[, or by hand{byHand}]',
            )->slot('subject', new Subject)->slot('byHand', new Always)->slot('due', new Wait)->slot('choice', new ImpliedChoice)
            ->slot('field', new OwnField(
                static fn (Field $field): bool => $field->type === FieldType::Choice || $field->type === FieldType::Tick,
                new Gap('choose a field', 'Choose the field that has kept its value.'),
            ))->slot('value', FieldValue::of('field'))->slot('of', new QuietSort);
    }

    public static function event(): EventKind
    {
        return EventKind::FellQuiet;
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);
        $value = $read?->raw('value');

        return $read === null ? null : new self(
            $context->type->name,
            new Quiet($read->text('of'), $read->any('field', Field::class), is_scalar($value) && ! is_float($value) ? $value : null),
            $read->the('due', Due::class),
        );
    }

    public function wanted(): string
    {
        $field = $this->quiet->field;

        return QuietSort::SAID[$this->quiet->sort].($field === null ? '' : " {$field->label}")." for {$this->due->length()}";
    }

    /** Run by hand, it is about the silence that is there already; so that silence sets it off no more. */
    public function occasionOf(Change $change, Facts $facts): ?string
    {
        if ($change->event?->kind !== EventKind::ByHand || $change->after === null) {
            return parent::occasionOf($change, $facts);
        }
        $mark = $facts->silenceMark($this->quiet, $change->after->type, $change->after->id);

        return $mark === null ? null : $this->occasion($mark);
    }

    public function quiet(): Quiet
    {
        return $this->quiet;
    }

    public function lasting(): Due
    {
        return $this->due;
    }

    public function moments(Ahead $ahead): array
    {
        [$since, $entry] = $ahead->silence($this->quiet);

        return $since === null ? [] : [[$this->due->from($since, $ahead->zone, $ahead->facts->calendar(null)), $this->occasion($entry)]];
    }

    public function occasion(int $entry): string
    {
        return "quiet:{$this->quiet->sort}:{$entry}";
    }
}
