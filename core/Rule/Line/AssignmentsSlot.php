<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use Closure;
use VividLedger\Rule\Target\Target;
use VividLedger\Rule\Value\AssignedValues;
use VividLedger\Rule\Value\FoundPerson;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** Fields with what they are set to: "Review to Needed and Stage since to now". */
final readonly class AssignmentsSlot implements Worded
{
    /**
     * @param  Closure(Scope, array<mixed>): ?RecordType  $type  of the record whose fields are set
     * @param  bool  $isNew  whether the record is being made
     * @param  bool  $isBare  whether no word before says that something is set: then one between field and value does
     */
    public function __construct(private Closure $type, private bool $isNew = false, private bool $isBare = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $type = ($this->type)($scope, $around);
        $texts = [];
        foreach ($type !== null && is_array($json) ? $json : [] as $item) {
            $field = $type !== null && is_array($item) && is_string($item['field'] ?? null) ? $type->field($item['field']) : null;
            $name = $field === null ? null : (new OwnField)->print($field->name, $scope->about($type), []);
            $to = $field === null || array_diff(array_keys((array) $item), ['field', 'to']) !== [] ? null
                : self::values($field)->print(((array) $item)['to'] ?? null, $scope->with($field), []);
            if ($name === null || $to === null) {
                return null;
            }
            $texts[] = "{$name} to {$to}";
        }

        return $texts === [] ? null : implode(' and ', $texts);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $type = ($this->type)($scope, $around);
        if ($type === null) {
            return [];
        }
        $found = [];
        $open = array_map(static fn (Parsed $one): Parsed => $one->as([$one->json]), $this->one($typed, $at, $scope, $type));
        while ($open !== []) {
            array_push($found, ...$open);
            $longer = [];
            foreach ($open as $list) {
                foreach (self::further($typed, $list->end) as [$behind, $cost]) {
                    foreach ($this->one($typed, $behind, $scope, $type) as $next) {
                        $items = [...(is_array($list->json) ? array_values($list->json) : []), $next->json];
                        $longer[] = new Parsed($items, $next->end, $list->cost + $next->cost + $cost);
                    }
                }
            }
            $open = Parsed::distinct($longer);
        }

        return $found;
    }

    public function read(Context $context, Node $node, Filled $around): ?Assignments
    {
        $type = $around->any('type', RecordType::class) ?? $around->any('on', Target::class)?->type() ?? $context->type;

        return Assignments::read($context, $node, $type, $this->isNew);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return [
            'type' => 'array', 'minItems' => 1, 'items' => [
                'type' => 'object', 'required' => ['field', 'to'], 'additionalProperties' => false,
                'properties' => ['field' => Json::NAME, 'to' => Json::ref('assigned')],
            ],
        ];
    }

    /** @return list<Parsed> */
    private function one(Typed $typed, int $at, Scope $scope, RecordType $type): array
    {
        $found = [];
        foreach ((new OwnField(static fn (Field $field): bool => $field->isSettable()))->parse($typed, $at, $scope->about($type),
            []) as $name) {
            $field = is_string($name->json) ? $type->field($name->json) : null;
            if ($field === null) {
                continue;
            }
            foreach ($this->valued($typed, $name->end, $scope, $field) as $one) {
                $found[] = $one->costlier($name->cost);
            }
        }

        return Parsed::distinct($found);
    }

    /**
     * What stands behind the name of a field.
     *
     * @return list<Parsed>
     */
    public function valued(Typed $typed, int $at, Scope $scope, Field $field): array
    {
        $found = [];
        foreach ($this->behind($typed, $at) as [$behind, $cost]) {
            foreach (self::values($field)->parse($typed, $behind, $scope->with($field), []) as $to) {
                // A new owner who has to be found is rather assigned.
                $isOwner = $typed->isLoose && $field->name === $scope->type->owner && is_array($to->json)
                    && ($to->json['kind'] ?? null) === FoundPerson::kind();
                $json = ['field' => $field->name, 'to' => $to->json];
                $found[] = new Parsed($json, $to->end, $to->cost + $cost + ($isOwner ? 2 : 0));
            }
        }

        return $found;
    }

    /** @return list<array{int, int}> places behind the word between a field and its value, with their cost */
    private function behind(Typed $typed, int $at): array
    {
        $places = [];
        foreach (['to', 'as', 'on', 'at', 'into', 'in', 'be', 'back to', 'over to', 'to be', '=', ':', ...($this->isBare
            ? ['becomes', 'is', 'gets', 'goes to', 'shall be', 'should be'] : [])] as $nth => $word) {
            $end = $typed->words($at, $word, $nth === 0 ? 0 : 3);
            if ($end !== null) {
                $places[] = [$end, min(1, $nth)];
            }
        }

        // "Priority high" by itself could be more than one thing, so it is further away.
        return $places === [] ? [[$at, $this->isBare ? 3 : 1]] : $places;
    }

    /** @return list<array{int, int}> */
    private static function further(Typed $typed, int $at): array
    {
        $comma = $typed->pattern($at, '[,;]', ',');
        $and = $typed->words($comma[1] ?? $at, 'and') ?? ($comma === null ? null : $comma[1]);
        $set = $and === null ? null : $typed->words($and, 'set', 3);

        return [...($and === null ? [] : [[$and, $comma === null ? 0 : 1]]), ...($set === null ? [] : [[$set, 1]])];
    }

    /** What a field can be set to. */
    private static function values(Field $field): OneShape
    {
        return new OneShape(static fn (): array => array_map(
            static fn (string $value): Shape => $value::shape(),
            AssignedValues::fitting($field),
        ));
    }
}
