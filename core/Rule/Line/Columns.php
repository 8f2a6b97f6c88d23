<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The fields that a list shows of each record, of this type or of another one on the same list. */
final readonly class Columns extends WordedAs
{
    public function __construct(private Slot $slot)
    {
    }

    /** @return ?list<Path> */
    public function read(Context $context, Node $node, Filled $around): ?array
    {
        $context = ListSection::seen($context, $around);
        $columns = [];
        $chooser = Editor::chooseSeveral('Columns', static fn (): array => FieldOffers::names($context));
        foreach ($node->items() as $item) {
            $path = $context->schema->path($context->type, $item->text() ?? '');
            if ($path === null) {
                $context->gap(
                    $item->text() ?? '?',
                    $node->at,
                    $chooser,
                    'unknown_field',
                    Words::say(
                        '{type} has no field ‘{name}’. Choose the columns again.',
                        type: $context->type->label,
                        name: (string) $item->text(),
                    ),
                );

                return null;
            }
            $columns[] = $path;
        }
        if ($columns === [] || count($columns) > ListSection::MOST_COLUMNS) {
            $said = Words::say('Choose from 1 to {most} columns.', most: ListSection::MOST_COLUMNS);
            $context->gap('choose columns', $node->at, $chooser, 'missing', $said);
        } else {
            $context->word(
                implode(', ', array_map(static fn (Path $path): string => $path->label(), $columns)),
                WordRole::Field,
                $node->at,
                $chooser,
            );
        }

        return $columns;
    }

    protected function slot(): Slot
    {
        return $this->slot;
    }
}
