<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Reading\ConditionReader;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\Part;

/** All kinds of line, in the order they are offered. A new kind is a new file and one line here. */
final class Lines
{
    public const MOST = 50;

    /** @var list<class-string<Line>> */
    public const ALL = [
        SetFields::class, GiveTask::class, GiveTasks::class, SendMessage::class, CreateRecord::class, Assign::class,
        AddComment::class, Follow::class, Refuse::class,
    ];

    /** @return ?Line null when it is unfinished, and the problem is noted; a line that is switched off is read all the same */
    public static function read(Context $context, Node $node): ?Line
    {
        $row = $context->row(Part::Line, $node, 'at once');
        $row->off = $node->child('off')->raw === true;
        $read = null;
        $known = false;
        foreach (self::ALL as $line) {
            if ($line::kind() === $node->kind()) {
                $known = true;
                $read = $line::read($context, $node);
            }
        }
        if (! $known) {
            return $context->gap('choose what to do', $node->at, null, 'unknown_line', 'Choose what this line does, or remove it.');
        }
        $own = $node->child('onlyIf');
        if ($own->isMissing()) {
            // The word belongs to the line's own sentence, above the rows of its conditions.
            $row->words[] = new \VividLedger\Rule\Reading\Word('+ only if', \VividLedger\Rule\Reading\WordRole::More, $own->at, Edit::Where);

            return $read;
        }
        $condition = ConditionReader::read($context, $own, 'only if', 1);

        return $read === null || $condition === null ? null : new OnlyIf($read, $condition, $row->text());
    }
}
