<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Words\Words;

/** The value of another field, of this record or of one it refers to. */
final readonly class CopiedValue implements AssignedValue
{
    public function __construct(private Path $path)
    {
    }

    public static function kind(): string
    {
        return 'copy';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{bare}')->shows('{from}')->orSaid(
            '{from}',
            '(the value of|whatever is in|what is in|the same as|a copy of) {from}',
        )
            ->slot('bare', new Keyed('from', new CopiedField(isBare: true)))->slot('from', new CopiedField);
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaid('copy {from} (to|into) {field}', '(take|fill) {field} (over |)from {from}')
            ->slot('field', new SettableField(self::class))->slot('from', new FieldPath);
    }

    public static function fits(Field $field): bool
    {
        return true;
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return [new Offer('the value of another field…', ['kind' => self::kind()], 'Or', isChosen: false)];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->the('from', Path::class));
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string|int|bool|null
    {
        $value = Value::of($field, $performance->view()->value($this->path));
        if ($value === null && $field->required) {
            throw new InvalidValue(
                'required',
                Words::say('{path} is empty, and {field} has to be filled in.', path: $this->path->label(), field: $field->label),
            );
        }

        return $value;
    }

    /** Whether what one field holds can stand in another. */
    public static function alike(Field $from, Field $to): bool
    {
        return ($from->type === $to->type && $from->target === $to->target) || ($from->type->isText() && $to->type->isText()
            && ! in_array($to->type->value, ['email', 'phone', 'link'], true));
    }
}
