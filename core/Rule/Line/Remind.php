<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\People\Finder;
use VividLedger\People\PersonExpression;
use VividLedger\People\PersonExpressions;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;
use VividLedger\Template\Template;

/** Reminds a colleague of the record, inside the application: "Remind the owner: {subject} is due on {due}". */
final readonly class Remind implements Line
{
    public const LENGTH = 200;

    private function __construct(public PersonExpression $to, private Template $text)
    {
    }

    public static function kind(): string
    {
        return 'remind';
    }

    public static function label(): string
    {
        return 'Remind';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->glue('Remind');
        $to = PersonExpressions::word($context, $node->child('to'));
        $at = $node->child('text');
        $text = trim($at->text() ?? '');
        if ($text === '') {
            return $context->gap('of what', $at->at, Edit::Title, 'missing', 'Write what the reminder says.');
        }
        $context->word("“{$text}”", WordRole::Value, $at->at, Edit::Title);
        if (mb_strlen($text) > self::LENGTH) {
            return $context->problem($at->at, 'too_long', 'A reminder has at most '.self::LENGTH.' characters.');
        }
        $template = Template::read($context, $text, $at->at);

        return $to === null || $template === null ? null : new self($to, $template);
    }

    public function perform(Performance $performance): void
    {
        $found = Finder::find($this->to, $performance);
        $text = mb_substr($this->text->render($performance->view(), $performance->display, $performance->number()), 0, self::LENGTH);
        self::tell($performance, $found, $text);
    }

    /** Leaves a note for a person; where nobody was found, the entry says so. */
    public static function tell(Performance $performance, \VividLedger\People\Found $found, string $text): void
    {
        if ($found->person === null) {
            $performance->failed('The reminder', "there is nobody to remind: {$found->path}");

            return;
        }
        $performance->send(
            new Message(
                Channel::App,
                [new Address($found->person->name, '', $found->person->id)],
                [],
                null,
                $text,
                '',
                $text,
                $found->path,
                [],
            ),
        );
    }
}
