<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Json;
use VividLedger\Shape\LabelSet;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;

/** A field of the record itself, by its label: "Stage", "its stage", "the stage of the quote", "the due date". */
final readonly class OwnField implements Worded
{
    /**
     * @param  ?Closure(Field): bool  $fits  which fields are meant; null for all
     * @param  string  $none  what can be chosen instead of a field; empty where it has to be one
     */
    public function __construct(
        private ?Closure $fits = null,
        private Gap $gap = new Gap('choose a field', 'Choose a field.'),
        private string $none = '',
    ) {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $found = is_string($json) ? array_search($json, self::labels($scope), true) : false;

        return $found === false ? null : (string) $found;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $fits = fn (?Field $field): bool => $field !== null && ($this->fits === null || ($this->fits)($field));
        $found = array_values(array_filter(
            self::all($typed, $at, $scope),
            static fn (Parsed $one): bool => is_string($one->json) && $fits($scope->type->field($one->json)),
        ));
        if ($found === []) {
            self::expect($typed, $at, $scope, $fits);
        }

        return $found;
    }

    /**
     * Nothing stands here that could: the labels of what fits are what to tell.
     *
     * @param  Closure(?Field): bool  $fits
     * @param  bool  $leads  whether what leads to another record can stand here too
     */
    public static function expect(Typed $typed, int $at, Scope $scope, Closure $fits, bool $leads = false): void
    {
        $typed->expectAny($at, static fn (): array => array_keys(array_filter(
            self::labels($scope),
            static function (string $name) use ($fits, $scope, $leads): bool {
                $field = $scope->type->field($name);

                return $fits($field) || ($leads && $field?->target !== null);
            },
        )));
    }

    private function isMeant(Field $field): bool
    {
        return $this->fits === null || ($this->fits)($field);
    }

    /** @return list<Offer> */
    private function offers(Context $context): array
    {
        return [
            ...($this->none === '' ? [] : [new Offer($this->none, null)]),
            ...array_map(
                static fn (Field $field): Offer => new Offer($field->label, $field->name),
                array_values(array_filter($context->type->fields, $this->isMeant(...))),
            ),
        ];
    }

    /** @return list<Parsed> */
    public static function all(Typed $typed, int $at, Scope $scope): array
    {
        return $typed->once("field:{$scope->type->name}", $at, static function () use ($typed, $at, $scope): array {
            $found = [];
            foreach (self::places($typed, $at, $scope) as [$place, $cost]) {
                foreach ($typed->labels($place, self::set($scope), 3) as [$name, $end]) {
                    $found[] = new Parsed($name, $end, $cost);
                    foreach (self::tails($typed, $end, $scope, (string) $name) as $tail) {
                        $found[] = new Parsed($name, $tail, 1);
                    }
                }
            }

            return Parsed::distinct($found);
        });
    }

    /** @return LabelSet<string> */
    public static function set(Scope $scope): LabelSet
    {
        return $scope->once('field labels', static fn (): LabelSet => new LabelSet(self::labels($scope)));
    }

    /** @return array<string, string> names by label; two fields of one label go by their names */
    public static function labels(Scope $scope): array
    {
        return $scope->once('fields', static function () use ($scope): array {
            $labels = [];
            foreach ($scope->type->fields as $field) {
                $labels[isset($labels[$field->label]) ? $field->name : $field->label] = $field->name;
            }

            return $labels;
        });
    }

    public function read(Context $context, Node $node, Filled $around): ?Field
    {
        $field = $context->type->field($node->text() ?? '');
        if ($field === null || ! $this->isMeant($field)) {
            return $context->gap(
                $node->text() ?? $this->gap->text,
                $node->at,
                Editor::choose('Field', fn (): array => $this->offers($context)),
                'unknown_field',
                $this->gap->message,
            );
        }
        $context->choice($field->label, WordRole::Field, $node->at, fn (): array => $this->offers($context), 'Field');

        return $field;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($this->gap->more !== '') {
            $context->more($this->gap->more, $node->at, Editor::choose('Field', fn (): array => $this->offers($context)));
        }
    }

    public function schema(): array
    {
        return Json::NAME;
    }

    /**
     * Here, and behind words that say whose field it is.
     *
     * @return list<array{int, int}> places with their cost
     */
    private static function places(Typed $typed, int $at, Scope $scope): array
    {
        $one = $scope->type->inSentence();
        $places = [[$at, 0]];
        foreach (! $typed->isLoose ? [] : ['its', "{$one}’s", "this {$one}’s", 'the record’s', 'field'] as $whose) {
            $end = $typed->words($at, $whose, 3);
            if ($end !== null) {
                $places[] = [$end, 1];
            }
        }

        return $places;
    }

    /** @return list<int> places behind words that say no more than the label did */
    private static function tails(Typed $typed, int $at, Scope $scope, string $name): array
    {
        $one = $scope->type->inSentence();
        $type = $scope->type->field($name)?->type;
        $also = match (true) {
            $type?->isMoment() === true => ['date', 'day'],
            $type === FieldType::Tick => ['box', 'tick', 'tick box', 'checkbox', 'flag'],
            $type === FieldType::Email => ['value', 'address'],
            $type === FieldType::Phone => ['value', 'number'],
            default => ['value'],
        };
        $tails = [];
        foreach (! $typed->isLoose ? [] : ['field', ...$also, "of the {$one}", "of this {$one}", "on the {$one}"] as $more) {
            $end = $typed->words($at, $more, 3);
            if ($end !== null) {
                $tails[] = $end;
                $further = $typed->words($end, "of the {$one}", 3);
                if ($further !== null) {
                    $tails[] = $further;
                }
            }
        }

        return $tails;
    }
}
