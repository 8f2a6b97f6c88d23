<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Condition\ImpliedChoice;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Keyed;

/** A value written in the rule. */
final readonly class FixedValue implements AssignedValue, Known
{
    public function __construct(public string|int|bool $value)
    {
    }

    public static function kind(): string
    {
        return 'value';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{value}')->slot('value', new ValueToSet);
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaid(
            '{verb}[ {}]', '(set|make|put|mark|change|turn|flag|move|switch|bring) [{} ][as |to |into |in |on |over to |back to ]{implied}',
            '(put|write|enter|choose|pick|select) {implied} (in|into|for|as|under) {field}',
        )->orSaidWith(
            ['value' => true],
            '(tick|check|enable|activate|set|mark|flag) {tick}', '(switch|turn) {tick} on', '(switch|turn) on {tick}',
            '(put|set) a tick (in|at|on) {tick}', '{tick} (on|yes|ticked|checked)', '(select|choose) {tick}',
        )->orSaidWith(
            ['value' => false],
            '(untick|uncheck|disable|deactivate|unset|unmark|unflag|clear) {tick}', '(switch|turn) {tick} off', '(switch|turn) off {tick}',
            '(take|remove) the tick (from|off|out of|in|at) {tick}',
            '{tick} (off|no|unticked|unchecked|not ticked)', '(deselect|unselect) {tick}', 'take the tick off {tick}',
        )->slot('verb', new ChoiceVerb)->slot('implied', new ImpliedChoice)->slot('field', new SettableField(self::class))
            ->slot('tick', new Keyed('field', new SettableField(self::class, FieldType::Tick)))->slot('', new ItsType);
    }

    public static function fits(Field $field): bool
    {
        return true;
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return [];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $value = FieldReader::value($context, $field, $node->child('value'), $editor, $node->at);

        return $value === null ? null : new self($value);
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string|int|bool
    {
        return $this->value;
    }

    public function known(): string|int|bool
    {
        return $this->value;
    }
}
