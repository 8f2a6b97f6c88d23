<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\Part;

/** All kinds of line, in the order they are offered. A new kind is a new file and one line here. */
final class Lines
{
    public const MOST = 50;

    /** @var list<class-string<Line>> */
    public const ALL = [SetFields::class, GiveTask::class];

    public static function read(Context $context, Node $node): ?Line
    {
        $context->row(Part::Line, $node, 'at once');
        foreach (self::ALL as $line) {
            if ($line::kind() === $node->kind()) {
                return $line::read($context, $node);
            }
        }

        return $context->gap('choose what to do', $node->at, null, 'unknown_line', 'Choose what this line does, or remove it.');
    }
}
