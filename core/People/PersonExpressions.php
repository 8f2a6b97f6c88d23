<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Record\WaitedSort;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;

/** All person expressions. A new one is a new file and one line here. */
final class PersonExpressions
{
    /** @var list<class-string<PersonExpression>> */
    public const ALL = [
        Owner::class, Creator::class, Doer::class, InField::class, NamedPerson::class, ManagerOf::class, InTurn::class, LeastLoaded::class,
        Decider::class, Asker::class,
    ];

    /** Reads an expression and gives it one word in the sentence. */
    public static function word(Context $context, Node $node): ?Who
    {
        $problems = $context->problems();
        $expression = self::read($context, $node);
        $offers = static fn (): array => self::offers($context);
        if ($expression !== null) {
            $context->choice($expression->wording(), WordRole::Person, $node->at, $offers);
        } elseif ($context->problems() > $problems) {
            $context->word('somebody', WordRole::Missing, $node->at, Editor::choose('Who', $offers));
        } else {
            $context->gap('choose a person', $node->at, Editor::choose('Who', $offers), 'missing', 'Choose a person.');
        }

        return $expression;
    }

    /** @return list<class-string<PersonExpression>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    public static function read(Context $context, Node $node): ?Who
    {
        foreach (self::all() as $expression) {
            if ($expression::kind() === $node->kind()) {
                $way = $expression::read($context, $node);

                return $way === null ? null : new Who($way, $context->said(new PersonSlot, $node->raw));
            }
        }

        return null;
    }

    /** @return list<Offer> those that can be found from a record of any type, whatever happened to it */
    public static function ofAny(Context $context): array
    {
        return array_values(array_filter(self::offers($context), static function (Offer $offer): bool {
            for ($value = $offer->value; is_array($value); $value = $value['of'] ?? null) {
                if (in_array($value['kind'] ?? null, [InField::kind(), Doer::kind()], true)) {
                    return false;
                }
            }

            return true;
        }));
    }

    /** @return list<Offer> those that are found from the record or the change, and take no turn */
    public static function found(Context $context): array
    {
        return array_values(array_filter(
            self::offers($context),
            static fn (Offer $offer): bool => ! in_array($offer->group, ['Teams', 'People'], true),
        ));
    }

    /** @return list<Offer> */
    public static function offers(Context $context): array
    {
        $paths = self::personPaths($context);
        $found = [['kind' => 'owner'], ['kind' => 'creator'], ['kind' => 'doer']];
        // Only where a line asks for a sign-off has anybody decided one.
        $deciding = $context->sheet->waitables->lines(WaitedSort::SignOff) === [] ? []
            : [['kind' => Decider::kind()], ['kind' => Asker::kind()]];
        $fields = array_map(static fn (string $path): array => ['kind' => 'in_field', 'path' => $path], $paths);
        $above = static fn (array $one): array => ['kind' => 'manager', 'of' => $one];
        $teams = [];
        foreach ($context->directory->teams() as $team) {
            array_push($teams, ['kind' => 'in_turn', 'team' => $team], ['kind' => 'least_loaded', 'team' => $team]);
        }
        $offers = [];
        foreach ([
            'From the record' => [...$found, ...$fields, ...$deciding],
            'Managers' => array_map($above, [...$found, $above($found[0]), ...$fields, ...array_slice($deciding, 1)]),
            'Teams' => $teams,
        ] as $group => $all) {
            foreach ($all as $one) {
                $offers[] = new Offer($context->said(new PersonSlot, $one), $one, $group);
            }
        }
        foreach ($context->directory->peopleAtWork() as $person) {
            $offers[] = new Offer($person->name, ['kind' => 'named', 'handle' => $person->handle], 'People', $person->team);
        }

        return $offers;
    }

    /** @return list<string> paths of the person fields besides the owner, here and one reference away */
    private static function personPaths(Context $context): array
    {
        $paths = [];
        foreach ($context->type->fields as $field) {
            if ($field->type === FieldType::Person && $field->name !== $context->type->owner && $field->name !== 'created_by') {
                $paths[] = $field->name;
            }
            $target = $field->target === null ? null : $context->schema->type($field->target);
            foreach ($target === null ? [] : array_filter($target->fields, static fn (Field $far): bool => $far->type === FieldType::Person
                && ! $far->system) as $far) {
                $paths[] = "{$field->name}.{$far->name}";
            }
        }

        return $paths;
    }
}
