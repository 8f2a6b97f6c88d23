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

/** What the field holds, with a line of text below it. When there is no room left, the field stays as it is and the entry says so. */
final readonly class AppendedLine implements AssignedValue
{
    private function __construct(private Template $text)
    {
    }

    public static function kind(): string
    {
        return 'append';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('what it is, and below {text}')->orSaid('what it is and a line below {text}')
            ->slot('text', new TemplateText(new Gap('write the line', 'Write the line it gets.'), 'The line'));
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaid(
            '(append|add) [the line |a line ]{text} (to|at the end of|below|under) {field}',
            '(write|put) {text} (below|under|at the end of) {field}',
        )->slot('field', new SettableField(self::class))->slot('text', new Quoted);
    }

    public static function fits(Field $field): bool
    {
        return $field->type === FieldType::LongText;
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return $isNew ? [] : [new Offer('what it is, and a line below…', ['kind' => self::kind()], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $read = self::shape()->opens(static fn (): Editor => $editor)->read($context, $node);

        return $read === null ? null : new self($read->the('text', Template::class));
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string|int|bool|null
    {
        $line = $this->text->render($performance->view(), $performance->display, $performance->number());
        $before = $target?->value($field->name);
        $text = is_string($before) ? "{$before}\n{$line}" : $line;
        if (mb_strlen($text) > $field->maxLength) {
            throw new InvalidValue('too_long', Words::say('{field} has no room for another line.', field: $field->label));
        }

        return Value::of($field, $text);
    }
}
