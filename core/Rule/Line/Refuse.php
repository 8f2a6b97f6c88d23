<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordRole;
use VividLedger\Template\Template;

/** Refuses the save: nothing is written, and the person reads why, at a field. */
final readonly class Refuse implements Line
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
        return Shape::of(self::kind())->says('Refuse the save with {message}[ at {field}]')->orSaid(
            '(do not|don’t) (save|let it be saved|save it)[,|:|;] [and |but ][say |with ]{message}[ at {field}]',
            'refuse[ it| this][ with|:|,| and say| because] {message}[ at {field}]',
            '(refuse|stop|block|prevent|reject|forbid|deny|cancel|do not allow|don’t allow|disallow) [{} |to |from ](save|saving|the save|the change|being saved|it|)'
                .'[ and (say|tell them)| with| saying| with the message| with message|:| because| and show] {message}[ at {field}| on {field}]',
            'show [an ]error {message}[ at {field}| on {field}]',
        )->slot('message', new Quoted)->slot('field', new OwnField)->slot('', new ItsType);
    }

    public static function label(): string
    {
        return 'Refuse the save';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->glue('Refuse the save with');
        $problems = $context->problems();
        $at = $node->child('message');
        $text = trim($at->text() ?? '');
        if ($text === '') {
            $context->gap('write the message', $at->at, Edit::Title, 'missing', 'Write what the person reads.');
        } else {
            $context->word("“{$text}”", WordRole::Value, $at->at, Edit::Title);
        }
        $fieldAt = $node->child('field');
        $offers = static fn (): array => [
            new Offer('the whole record', null),
            ...array_map(static fn (Field $field): Offer => new Offer($field->label, $field->name), $context->type->ownFields()),
        ];
        $field = $context->type->field($fieldAt->text() ?? '');
        if ($field !== null) {
            $context->glue('at');
            $context->choice($field->label, WordRole::Field, $fieldAt->at, $offers);
        } elseif ($fieldAt->raw === null) {
            $context->more('+ at a field', $fieldAt->at, Edit::Offer, $offers);
        } else {
            $context->gap(
                $fieldAt->text() ?? '?',
                $fieldAt->at,
                Edit::Offer,
                'unknown_field',
                'Choose the field the message stands at.',
                $offers,
            );
        }
        $message = $text === '' ? null : Template::read($context, $text, $at->at);

        return $message === null || $context->problems() > $problems ? null : new self($field, $message);
    }

    public function perform(Performance $performance): void
    {
        $performance->refuse($this->field, $this->message->render($performance->view(), $performance->display, $performance->number()));
    }
}
