<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\SignedLength;
use VividLedger\Shape\TimeForm;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Amount;
use VividLedger\Time\OutOfTime;
use VividLedger\Words\Words;

/** A date so much before or after another: after itself, after today, or after a date of this or a related record. */
final readonly class Shifted implements AssignedValue
{
    private function __construct(private Amount $amount, private DateBase $from)
    {
    }

    public static function kind(): string
    {
        return 'shift';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{before} before [{from}]')->says('{after} after [{from}]')->orSaid(
            '{after} from [{from}]', '{after} past [{from}]', '{before} prior to [{from}]',
        )->orSaidWith(['from' => 'now'], 'in {after}')->orSaidWith(['from' => 'now', 'amount' => 1, 'unit' => 'day'], 'tomorrow')
            ->slot('before', new SignedLength(-1))->slot('after', new SignedLength(1))->slot('from', new ShiftBase);
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaidWith(
            ['from' => 'itself'],
            '(push|move|put|set|shift) back {field} by {after}',
            '(push|move|put) {after} (onto|on to|on top of) {field}',
            '(push|move|postpone|shift|delay|put off|extend|defer|put|set) {field} [by |back |out |on |back by |out by |on by '
                .']{after}[ out| later| on| back| further| further out]',
            'add {after} to {field}',
            '{field} (+|plus) {after}', '(push|move|put|set|shift) back {field} {after}',
            '{field} {after} later',
            '(bring|pull) {field} forward [by ]{before}',
            '(move|set|make) {field} {before} earlier',
            'take {before} off {field}',
        )->slot('field', new SettableField(self::class))->slot('before', new SignedLength(-1))->slot('after', new SignedLength(1));
    }

    public static function fits(Field $field): bool
    {
        return $field->type->isMoment();
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return [new Offer('a date before or after another…', ['kind' => self::kind()], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $form = TimeForm::signed(['after', 'before'], $field->type === FieldType::Date, ['kind' => self::kind()], $editor->offers);
        $amount = TimeReader::amount($node);
        if ($amount === null || $amount->amount === 0 || ($field->type === FieldType::Date && $amount->unit->isShort())) {
            return $context->gap(
                'how long before or after',
                $node->at,
                $form,
                'missing',
                Words::say('Give a whole number and a unit, such as 3 weeks; a minus sign means before.'),
            );
        }
        $context->word(
            $amount->unit->label(abs($amount->amount)).($amount->amount < 0 ? ' before' : ' after'),
            WordRole::Value,
            $node->at,
            $form,
        );
        $from = DateBase::read($context, $node->child('from'), $field);

        return $from === null ? null : new self($amount, $from);
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string
    {
        $instant = $this->from->moment($field, $performance, $target);
        try {
            $moved = OutOfTime::check($this->amount->from($instant, $performance->zone, $performance->facts->calendar(null)));
        } catch (OutOfTime $never) {
            throw new InvalidValue('out_of_range', "{$field->label}: {$never->getMessage()}.");
        }

        return DateBase::value($field, $moved, $performance->zone);
    }
}
