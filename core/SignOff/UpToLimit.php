<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use Brick\Math\BigDecimal;
use VividLedger\Facts\View;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OwnField;

/** Up the tree, level after level, to the first person whose limit suffices for an amount; all of them where nobody's does. */
final readonly class UpToLimit implements Approvers, AsksAmount
{
    public function __construct(private Who $from, private Field $amount)
    {
    }

    public static function kind(): string
    {
        return 'up_to_limit';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Deciders::chooser(...))->starts(['from' => ['kind' => 'owner']])
            ->says('managers up from {from} until the limit suffices for {field}')
            ->orSaid(
                '[up ]the tree [up ]from {from} until the limit (of|for) {field} suffices',
                '[the ]managers (above|of|over) {from} (up to|until) the (first whose|one whose) limit (suffices|is enough) for {field}',
                'up from {from} until the limit suffices for {field}',
            )
            ->slot('from', new PersonSlot)->slot('field', new OwnField(
                static fn (Field $field): bool => $field->type === FieldType::Money,
                new Gap('choose an amount', 'Choose the amount that the limit has to suffice for.'),
            ));
    }

    public static function label(): string
    {
        return 'managers, until a limit suffices';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->the('from', Who::class), $read->the('field', Field::class));
    }

    public function amount(): Field
    {
        return $this->amount;
    }

    public function people(View $view): array
    {
        $amount = $view->record->value($this->amount->name);
        $amount = BigDecimal::of(is_string($amount) ? $amount : '0');
        $people = [];
        foreach (Tree::above($this->from->find($view)->person, $view->facts) as $manager) {
            $people[] = $manager;
            $limit = $manager->limitFor($view->record->type);
            if ($limit !== null && $amount->isLessThanOrEqualTo($limit)) {
                break;
            }
        }

        return $people;
    }

    public function followsTree(): bool
    {
        return true;
    }

    public function most(): null
    {
        return null;
    }
}
