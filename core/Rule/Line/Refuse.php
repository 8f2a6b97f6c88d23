<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Template\Template;
use VividLedger\Template\TemplateText;
use VividLedger\Words\Words;

/** Refuses the save: nothing is written, and the person reads why, at a field. */
final readonly class Refuse implements Line, OnlyAtOnce
{
    private function __construct(private ?Field $field, private Template $message)
    {
    }

    public static function kind(): string
    {
        return 'refuse';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['message' => ''])->says('Refuse the save with {message}[ at {field}]')->orSaid(
            '(do not|don’t) (save|let it be saved|save it)[,|:|;] [and |but ][say |with ]{message}[ at {field}]',
            'refuse[ it| this][ with|:|,| and say| because] {message}[ at {field}]',
            '(refuse|stop|block|prevent|reject|forbid|deny|cancel|do not allow|don’t allow|disallow) [{} |to |from ](save|saving|'
                .'the save|the change|being saved|it|)'
                .'[ and (say|tell them)| with| saying| with the message| with message|:| because| and show] {message}[ at {field}| '
                    .'on {field}]',
            'show [an ]error {message}[ at {field}| on {field}]',
        )->slot('message', new TemplateText(
            new Gap('write the message', 'Write what the person reads.'),
            'What the person reads',
        ))
            ->slot('field', new OwnField(
                static fn (Field $field): bool => ! $field->system,
                new Gap('choose a field', 'Choose the field the message stands at.', '+ at a field'),
                'the whole record',
            ))->slot('', new ItsType);
    }

    public static function label(): string
    {
        return 'Refuse the save';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->any('field', Field::class), $read->the('message', Template::class));
    }

    public function perform(ActionContext $performance): void
    {
        $performance->refuse($this->field, $this->message->render($performance->view(), $performance->display, $performance->number()));
    }

    public static function whyNow(): string
    {
        return Words::say('A save can only be refused at once.');
    }
}
