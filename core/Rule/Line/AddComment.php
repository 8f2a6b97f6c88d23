<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use App\Models\Comment;
use VividLedger\Engine\Performance;
use VividLedger\Rule\Target\Target;
use VividLedger\Rule\Target\Targets;
use VividLedger\Rule\Target\TargetSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordRole;
use VividLedger\Template\Template;

/** Writes a comment on the record, or on one it refers to. */
final readonly class AddComment implements Line
{
    public const LENGTH = 5000;

    private function __construct(private Template $text, private Target $target)
    {
    }

    public static function kind(): string
    {
        return 'comment';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('Comment [on {on} ]{text}')->orSaid(
            '(write|add|leave|post|make|put|enter) [the |a ](comment|note|remark)[ saying| that says|:][ on {on}] {text}[ on {on}]', 'comment[ saying|ing|:| with| that] {text}[ on {on}]',
            '(write|add|leave|post|make|put) {text} as a comment[ on {on}]', 'note {text}[ on {on}]',
            '(write|add|leave|post|put) [the |a ](comment|note|remark) {text} (on|to) {}', 'a comment {text}',
        )->slot('on', new TargetSlot)->slot('text', new Quoted(self::LENGTH))->slot('', new ItsType);
    }

    public static function label(): string
    {
        return 'Write a comment';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->glue('Comment');
        $target = Targets::read($context, $node->child('on'));
        $at = $node->child('text');
        $text = trim($at->text() ?? '');
        if ($text === '') {
            return $context->gap('write the comment', $at->at, Edit::Notes, 'missing', 'Write the comment.');
        }
        $context->word(
            '“'.mb_strimwidth((string) preg_replace('/\s+/u', ' ', $text), 0, 80, '…').'”',
            WordRole::Value,
            $at->at,
            Edit::Notes,
        );
        if (mb_strlen($text) > self::LENGTH) {
            return $context->problem($at->at, 'too_long', 'A comment has at most '.self::LENGTH.' characters.');
        }
        $template = Template::read($context, $text, $at->at);

        return $template === null || $target === null ? null : new self($template, $target);
    }

    public function perform(Performance $performance): void
    {
        $text = mb_substr($this->text->lines($performance->view(), $performance->display, $performance->number()), 0, self::LENGTH);
        $records = $this->target->records($performance);
        if ($records === [] && $this->target->whyNone() !== null) {
            $performance->failed('The comment', $this->target->whyNone());
        }
        foreach ($text === '' ? [] : $records as $record) {
            $performance->comment($record, $text);
        }
    }
}
