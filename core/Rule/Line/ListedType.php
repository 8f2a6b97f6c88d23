<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\TypeName;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Of which type the records of a section are. Another type begins with what such a section usually shows. */
final readonly class ListedType extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?RecordType
    {
        $type = $context->schema->type($node->text() ?? '');
        $section = substr($node->at, 0, (int) strrpos($node->at, '/'));
        $editor = Editor::choose('Records too', static fn (): array => ListSection::offers($context, $section, $type));
        if ($type === null) {
            $message = Words::say('Choose which records stand on the list too.');

            return $context->gap($node->text() ?? 'choose what', $node->at, $editor, 'unknown_type', $message);
        }
        $context->word($type->plural, WordRole::Field, $node->at, $editor);

        return $type;
    }

    protected function slot(): TypeName
    {
        return new TypeName;
    }
}
