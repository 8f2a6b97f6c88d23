<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Series;
use VividLedger\Shape\WordedAs;
use VividLedger\Words\Words;

/** Records of other types on the same list. */
final readonly class FurtherSections extends WordedAs
{
    private const MOST = 6;

    /** @return list<ListSection> */
    public function read(Context $context, Node $node, Filled $around): array
    {
        $sections = [];
        foreach ($node->items() as $item) {
            $context->glue('; and');
            $sections[] = ListSection::read($context, $item, $around->any('by', Field::class) !== null);
        }
        if (count($node->items()) > self::MOST) {
            $context->problem($node->at, 'too_many', Words::say('A list takes at most {most} further sorts of record.', most: self::MOST));
        }
        $this->more($context, $node, $around);

        return array_values(array_filter($sections));
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more(
            '+ other records',
            "{$node->at}/".count($node->items()),
            Editor::choose('Records too', static fn (): array => ListSection::offers($context)),
        );
    }

    protected function slot(): Series
    {
        return new Series(ListSection::shape(), 1, self::MOST, isNeeded: false);
    }
}
