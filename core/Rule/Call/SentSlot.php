<?php

declare(strict_types=1);

namespace VividLedger\Rule\Call;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Template\Template;
use VividLedger\Template\TemplateText;
use VividLedger\Words\Words;

/**
 * What is sent: fields of the record and of those it refers to, and texts of one's own with merge fields, each under a name:
 * "Name as “name”, Customer › Plan as “plan” and the text “Ticket {number}” as “ref”".
 */
final readonly class SentSlot extends WordedAs
{
    private const MOST = 60;

    private const TEXT_LENGTH = 1000;

    /** Small letters, digits and underlines, with dots between the levels. */
    private const NAME = '/^[A-Za-z_][A-Za-z0-9_]*(\.[A-Za-z_][A-Za-z0-9_]*){0,5}$/D';

    /** @return list<Sent> */
    public function read(Context $context, Node $node, Filled $around): array
    {
        $items = $node->items();
        $sent = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'and' : ',');
            }
            $sent[] = $this->one($context, $item, array_map(static fn (?Sent $one): string => $one->name ?? '', $sent));
        }
        $next = "{$node->at}/".count($items);
        $editor = Editor::choose('Field', static fn (): array => self::offers($context));
        if ($items === []) {
            $context->gap('choose a field', $next, $editor, 'missing', Words::say('Choose what is sent.'));
        } else {
            $context->more('+ field', $next, $editor);
        }
        if (count($items) > self::MOST) {
            $context->problem($node->at, 'missing', Words::say('At most {most} fields are sent.', most: self::MOST));
        }

        return array_values(array_filter($sent));
    }

    /** @param  list<string>  $taken  names that stand there already */
    private function one(Context $context, Node $item, array $taken): ?Sent
    {
        $name = $item->child('name')->text() ?? '';
        $what = $item->child('text')->isMissing() ? $this->field($context, $item) : $this->text($context, $item);
        if ($what === null) {
            return null;
        }
        $context->glue('as');
        $line = Editor::line('Under which name', 100);
        if (preg_match(self::NAME, $name) !== 1 || in_array($name, $taken, true)) {
            $message = in_array($name, $taken, true) ? Words::say(
                '“{name}” is sent twice.',
                name: $name,
            ) : Words::say('Give a name, such as tax_number or address.city.');

            return $context->gap($name === '' ? 'which name?' : "“{$name}”", $item->child('name')->at, $line, 'wrong_type', $message);
        }
        $context->word("“{$name}”", WordRole::Value, $item->child('name')->at, $line);

        return new Sent($what, $name);
    }

    private function field(Context $context, Node $item): ?Path
    {
        $path = $context->schema->path($context->type, $item->child('path')->text() ?? '');
        $editor = self::chooser($context);
        if ($path === null) {
            return $context->gap('choose a field', $item->at, $editor, 'unknown_field', Words::say('Choose a field to send.'));
        }
        $context->word($path->label(), WordRole::Field, $item->at, $editor);

        return $path;
    }

    private function text(Context $context, Node $item): ?Template
    {
        $context->word('the text', WordRole::Field, $item->at, self::chooser($context));
        $gap = new Gap('write a text', 'Write what is sent, such as {number}.');

        return (new TemplateText($gap, 'What is sent', most: self::TEXT_LENGTH))->read($context, $item->child('text'), new Filled);
    }

    private static function chooser(Context $context): Editor
    {
        return Editor::choose('Field', static fn (): array => [new Offer('take it out', null), ...self::offers($context)]);
    }

    protected function slot(): Many
    {
        return new Many(
            Shape::of()->says('{path} as {name}')->says('the text {text} as {name}')
                ->slot('path', new FieldPath)->slot('text', new Quoted(self::TEXT_LENGTH))->slot('name', new Quoted(100)),
            'and',
            most: self::MOST,
        );
    }

    /** @return list<Offer> */
    private static function offers(Context $context): array
    {
        $own = [
            new Offer('its number', ['text' => '{number}', 'name' => 'number'], 'Texts'),
            new Offer('a text of your own', ['text' => '', 'name' => 'text'], 'Texts'),
        ];
        $offers = array_values(array_map(
            static fn (Field $field): Offer => new Offer(
                $field->label,
                ['path' => $field->name, 'name' => $field->name],
                $context->type->label,
            ),
            $context->type->fields,
        ));
        foreach ($context->type->fields as $field) {
            $target = $field->type === FieldType::Reference ? $context->schema->type($field->target ?? '') : null;
            foreach ($target->fields ?? [] as $theirs) {
                $path = "{$field->name}.{$theirs->name}";
                $offers[] = new Offer("{$field->label} › {$theirs->label}", ['path' => $path, 'name' => $path], $field->label);
            }
        }

        return [...$offers, ...$own];
    }
}
