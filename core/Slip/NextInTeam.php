<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Facts\View;
use VividLedger\People\TeamSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OwnField;

/** The next of a team who is at work: "the next of Finance as Owner". */
final readonly class NextInTeam implements NextInLine
{
    private function __construct(private Field $field, private string $team)
    {
    }

    public static function kind(): string
    {
        return 'team';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('pass it on to somebody else in {team}, as {field}')
            ->orSaid('(ask|try) somebody else (in|from|of) {team}, as {field}')
            ->slot('team', new TeamSlot)->slot('field', new OwnField(
                static fn (Field $field): bool => $field->type === FieldType::Person && $field->isSettable(),
                new Gap('choose a field', 'Choose the field that says whose turn it is.'),
            ));
    }

    public static function label(): string
    {
        return 'pass it on within a team';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->the('field', Field::class), $read->text('team'));
    }

    public function next(View $view, array $asked): ?int
    {
        foreach ($view->facts->team($this->team) as $person) {
            if (! in_array($person->id, $asked, true)) {
                return $person->id;
            }
        }

        return null;
    }

    public function field(): Field
    {
        return $this->field;
    }
}
