<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\ReadsChildren;
use VividLedger\Rule\Target\Target;
use VividLedger\Rule\Target\TargetSlot;
use VividLedger\Rule\Target\ThisRecord;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Template\Template;
use VividLedger\Template\TemplateText;

/** Writes a comment on the record, or on one it refers to. */
final readonly class AddComment implements Line, ReadsChildren
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
        return Shape::of(self::kind())->starts(['text' => ''])->says('Comment [on {on} ]{text}')->orSaid(
            '(write|add|leave|post|make|put|enter) [the |a ](comment|note|remark)[ saying| that says|:][ on {on}] {text}[ on {on}]',
            'comment[ saying|ing|:| with| that] {text}[ on {on}]',
            '(write|add|leave|post|make|put) {text} as a comment[ on {on}]', 'note {text}[ on {on}]',
            '(write|add|leave|post|put) [the |a ](comment|note|remark) {text} (on|to) {}',
            'a comment[ saying] {text}',
            '(say|write) {text} in [a |the ](comment|note)',
        )->slot('on', new TargetSlot)->slot('text', new TemplateText(
            new Gap('write the comment', 'Write the comment.'),
            'Comment',
            true,
            self::LENGTH,
            80,
        ))->slot('', new ItsType);
    }

    public static function label(): string
    {
        return 'Write a comment';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self(
            $read->the('text', Template::class),
            $read->any('on', Target::class) ?? new ThisRecord($context->type),
        );
    }

    public function childrenRead(): array
    {
        return $this->target->childrenRead();
    }

    public function perform(ActionContext $performance): void
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
