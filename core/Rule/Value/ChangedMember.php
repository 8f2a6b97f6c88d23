<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Members;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Words\Words;

/** A set of choices or tags with a member more, or without one. */
abstract readonly class ChangedMember implements AssignedValue
{
    final public function __construct(private string $member)
    {
    }

    abstract protected static function word(): string;

    /**
     * @param  list<string>  $members
     * @return list<string>
     */
    abstract protected function changed(array $members, string $member): array;

    public static function fits(Field $field): bool
    {
        return $field->type->isSet();
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return $isNew ? [] : [new Offer('what it is '.static::word().'…', ['kind' => static::kind()], 'Or')];
    }

    public static function shape(): Shape
    {
        return Shape::of(static::kind())->says('what it is '.static::word().' {member}')->orSaid('itself '.static::word().' {member}')
            ->slot('member', new ValueToSet(isMember: true));
    }

    public static function deeds(): Shape
    {
        return Shape::of(static::kind())->orSaid(...static::deedsSaid())
            ->slot('field', new SettableField(static::class))->slot('its', new ImpliedField(static::class))
            ->slot('tags', new ImpliedField(static::class, FieldType::Tags))->slot('member', FieldValue::of('field'))
            ->slot('', new ItsType);
    }

    /** @return list<string> */
    abstract protected static function deedsSaid(): array;

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?static
    {
        $read = static::shape()->opens(static fn (): Editor => $editor)->read($context, $node);

        return $read === null ? null : new static($read->text('member'));
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): ?string
    {
        $members = $this->changed(Members::of($target?->value($field->name)), $this->member);
        $value = Value::of($field, $members);
        if ($value === null && $field->required) {
            throw new InvalidValue('required', Words::say('{field} has to be filled in.', field: $field->label));
        }

        return is_string($value) ? $value : null;
    }
}
