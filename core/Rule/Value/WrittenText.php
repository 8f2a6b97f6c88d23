<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Template\Template;
use VividLedger\Template\TemplateText;
use VividLedger\Words\Words;

/** Text with merge fields: "Renewal of {name}". */
final readonly class WrittenText implements AssignedValue
{
    private function __construct(private Template $text)
    {
    }

    public static function kind(): string
    {
        return 'text';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the text {text}')
            ->slot('text', new TemplateText(new Gap('write the text', 'Write what it becomes.')));
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaid('(write|put|enter) the text {text} (in|into) {field}')
            ->slot('field', new SettableField(self::class))->slot('text', new Quoted);
    }

    public static function fits(Field $field): bool
    {
        return $field->type === FieldType::Text || $field->type === FieldType::LongText;
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return [new Offer('text with merged fields…', ['kind' => self::kind()], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $read = self::shape()->opens(static fn (): Editor => $editor)->read($context, $node);

        return $read === null ? null : new self($read->the('text', Template::class));
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string
    {
        $text = mb_substr($this->text->render($performance->view(), $performance->display, $performance->number()), 0, $field->maxLength);
        $value = Value::of($field, $text);
        if (! is_string($value)) {
            throw new InvalidValue('no_value', Words::say('The text for {field} comes out empty.', field: $field->label));
        }

        return $value;
    }
}
