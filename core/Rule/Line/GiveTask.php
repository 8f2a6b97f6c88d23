<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\People\PersonExpression;
use VividLedger\People\PersonExpressions;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\WordRole;
use VividLedger\Template\Template;
use VividLedger\Time\Amount;
use VividLedger\Time\Unit;

/** Gives a task to a person: "Give the owner’s manager a task “Ring {contact.name}” due 1 day later". */
final readonly class GiveTask implements Line
{
    public const TITLE_LENGTH = 200;

    public function __construct(
        private Template $title,
        private PersonExpression $to,
        private ?Amount $due,
    ) {
    }

    public static function kind(): string
    {
        return 'give_task';
    }

    public static function label(): string
    {
        return 'Give a task';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $problems = count($context->problems);
        $context->glue('Give');
        $to = PersonExpressions::word($context, $node->child('to'));
        $context->glue('a task');
        $title = self::title($context, $node->child('title'));
        $context->glue('due');
        $due = self::due($context, $node->child('due'));

        return $to === null || $title === null || count($context->problems) > $problems ? null : new self($title, $to, $due);
    }

    public function perform(Performance $performance): void
    {
        $found = $this->to->find($performance->view());
        $person = $found->person;
        $path = $found->path;
        $stoodIn = false;
        if ($person === null || ! $person->active) {
            $path = $person === null ? $path : "{$path}, who has left";
            $person = $performance->facts->fallbackPerson();
            $stoodIn = true;
            $path .= $person === null ? '; nobody stands in' : "; {$person->name} stands in";
        }
        $title = $this->title->render($performance->view(), $performance->display, $performance->number());
        $performance->give(new TaskGiven(
            mb_substr($title === '' ? 'Task' : $title, 0, self::TITLE_LENGTH),
            $person,
            $path,
            $stoodIn,
            $this->due?->from($performance->now, $performance->zone),
        ));
    }

    private static function title(Context $context, Node $node): ?Template
    {
        $text = $node->text();
        if ($text === null || trim($text) === '') {
            return $context->gap('write a title', $node->at, Edit::Title, 'missing', 'Give the task a title.');
        }
        $context->word("“{$text}”", WordRole::Value, $node->at, Edit::Title);
        if (mb_strlen($text) > self::TITLE_LENGTH) {
            return $context->problem($node->at, 'too_long', 'A title has at most '.self::TITLE_LENGTH.' characters; this has '.mb_strlen($text).'.');
        }

        return Template::read($context, $text, $node->at);
    }

    private static function due(Context $context, Node $node): ?Amount
    {
        if ($node->raw === null) {
            $context->word('at no set time', WordRole::Value, $node->at, Edit::Due);

            return null;
        }
        $amount = $node->child('amount')->raw;
        $unit = Unit::tryFrom($node->child('unit')->text() ?? '');
        if (! is_int($amount) || $amount < 0 || $unit === null) {
            return $context->gap('choose when', $node->at, Edit::Due, 'wrong_type', 'Give a whole number and a unit, such as 2 days.');
        }
        $due = new Amount($amount, $unit);
        $context->word($amount === 0 ? 'at once' : $unit->label($amount).' later', WordRole::Value, $node->at, Edit::Due);

        return $due->isReasonable() ? $due : $context->problem($node->at, 'out_of_range', 'A task can be due at most ten years ahead.');
    }
}
