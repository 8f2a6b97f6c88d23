<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Slip\Question\AskField;
use VividLedger\Words\Words;

/** The field that an answer is written to: one of the record, or of one that it refers to. */
final readonly class AnsweredPath extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?Path
    {
        $name = $node->text() ?? '';
        $path = $context->schema->path($context->type, $name);
        $editor = Editor::choose('Field', static fn (): array => self::offers($context));
        if ($path === null || ! AskField::isMeant($path->field) || count($path->hops) > 1) {
            $message = Words::say('Choose a field that people outside can fill in, of the record or of one that it refers to.');

            return $context->gap($name === '' ? 'choose a field' : $name, $node->at, $editor, 'unknown_field', $message);
        }
        $context->word($path->label(), WordRole::Field, $node->at, $editor);

        return $path;
    }

    protected function slot(): FieldPath
    {
        return new FieldPath(AskField::isMeant(...));
    }

    /** @return list<Offer> */
    private static function offers(Context $context): array
    {
        $offers = [];
        foreach ($context->type->fields as $field) {
            if (AskField::isMeant($field)) {
                $offers[] = new Offer($field->label, $field->name, $context->type->label);
            }
        }
        foreach ($context->type->fields as $field) {
            $target = $field->type === FieldType::Reference ? $context->schema->type($field->target ?? '') : null;
            foreach ($target === null ? [] : array_filter($target->fields, AskField::isMeant(...)) as $theirs) {
                $offers[] = new Offer("{$field->label} › {$theirs->label}", "{$field->name}.{$theirs->name}", $field->label);
            }
        }

        return $offers;
    }
}
