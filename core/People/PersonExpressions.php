<?php

declare(strict_types=1);

namespace VividLedger\People;

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
    ];

    /** Reads an expression and gives it one word in the sentence. */
    public static function word(Context $context, Node $node): ?PersonExpression
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

    public static function read(Context $context, Node $node): ?PersonExpression
    {
        foreach (self::all() as $expression) {
            if ($expression::kind() === $node->kind()) {
                return $expression::read($context, $node);
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
        $from = 'From the record';
        $offers = [
            new Offer('the owner', ['kind' => 'owner'], $from),
            new Offer('the creator', ['kind' => 'creator'], $from),
            new Offer('whoever made the change', ['kind' => 'doer'], $from),
        ];
        foreach (self::personPaths($context) as $path => $label) {
            $offers[] = new Offer("the {$label}", ['kind' => 'in_field', 'path' => $path], $from);
        }
        $managed = [
            'the owner' => ['kind' => 'owner'], 'the creator' => ['kind' => 'creator'], 'whoever made the change' => ['kind' => 'doer'],
        ];
        foreach ($managed as $label => $of) {
            $offers[] = new Offer("{$label}’s manager", ['kind' => 'manager', 'of' => $of], 'Managers');
        }
        $offers[] = new Offer(
            'the owner’s manager’s manager',
            ['kind' => 'manager', 'of' => ['kind' => 'manager', 'of' => ['kind' => 'owner']]],
            'Managers',
        );
        foreach (self::personPaths($context) as $path => $label) {
            $offers[] = new Offer(
                "the {$label}’s manager",
                ['kind' => 'manager', 'of' => ['kind' => 'in_field', 'path' => $path]],
                'Managers',
            );
        }
        foreach ($context->directory->teams() as $team) {
            $offers[] = new Offer("the next of {$team} in turn", ['kind' => 'in_turn', 'team' => $team], 'Teams');
            $offers[] = new Offer("the least loaded of {$team}", ['kind' => 'least_loaded', 'team' => $team], 'Teams');
        }
        foreach ($context->directory->peopleAtWork() as $person) {
            $offers[] = new Offer($person->name, ['kind' => 'named', 'handle' => $person->handle], 'People', $person->team);
        }

        return $offers;
    }

    /** @return array<string, string> label by path of the person fields besides the owner, here and one reference away */
    private static function personPaths(Context $context): array
    {
        $paths = [];
        foreach ($context->type->fields as $field) {
            if ($field->type === FieldType::Person && $field->name !== $context->type->owner && $field->name !== 'created_by') {
                $paths[$field->name] = $field->label;
            }
            $target = $field->target === null ? null : $context->schema->type($field->target);
            foreach ($target === null ? [] : array_filter($target->fields, static fn (Field $far): bool => $far->type === FieldType::Person
                && ! $far->system) as $far) {
                $paths["{$field->name}.{$far->name}"] = "{$field->label} › {$far->label}";
            }
        }

        return $paths;
    }
}
