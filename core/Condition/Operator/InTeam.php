<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use Closure;
use VividLedger\Condition\OperandSlot;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Facts\View;
use VividLedger\House\Directory;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\People;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** Whether the person in a field belongs to a team. Its opposite is true of nobody too. */
final class InTeam implements PersonOperator
{
    use TurnsAtOperands;

    public function __construct(private readonly bool $isNot = false)
    {
    }

    public function kind(): string
    {
        return $this->isNot ? 'not_in_team' : 'in_team';
    }

    public function shape(): Shape
    {
        return Shape::of($this->kind())->says($this->isNot ? '{left} is not in the team {value}' : '{left} is in the team {value}')
            ->orSaid(...($this->isNot
                ? [
                    '{left} (isn’t|is not) (in|on|part of|a member of|one of) [the |the team ]{value}[ team]',
                    '{left} does not belong to [the team ]{value}',
                ]
                : ['{left} (is |)(in|on|part of|a member of|from|one of) [the |the team ]{value}[ '
                    .'team]', '{left} belongs to [the team ]{value}[ team]']))
            ->slot('left', SubjectSlot::fitting($this))->slot('value', new OperandSlot($this));
    }

    public function fits(FieldType $type): bool
    {
        return $type === FieldType::Person;
    }

    public function operand(): Operand
    {
        return Operand::One;
    }

    public function ofNothing(): ?bool
    {
        return null;
    }

    public function compared(Field $field): Field
    {
        return People::type()->field('team') ?? $field;
    }

    public function test(Field $field, array $operands): Closure
    {
        throw new \LogicException('The id of a person does not say it.');
    }

    public function judgePerson(Readable $left, array $operands): Closure
    {
        $is = (new Is)->test($this->compared($left->field()), $operands);

        return function (View $view) use ($left, $is): bool {
            $id = $view->value($left);

            return $is(is_int($id) ? $view->facts->person($id)?->team : null) !== $this->isNot;
        };
    }

    public function query(QueryWriter $writer, Readable $left, array $operands): mixed
    {
        $holds = $left instanceof Path
            ? (new Is)->query($writer, new Path([...$left->hops, $left->field], $this->compared($left->field)), $operands)
            : $writer->never();

        return $this->isNot ? $writer->none([$holds]) : $holds;
    }

    public function ofEmpty(): bool
    {
        return $this->isNot;
    }

    public function trouble(array $operands, Directory $directory): ?array
    {
        $team = $operands[0] ?? null;

        return is_string($team) && ! in_array($team, $directory->teams(), true)
            ? ['unknown_team', Words::say('There is no team ‘{team}’.', team: $team)] : null;
    }
}
