<?php

declare(strict_types=1);

namespace App\Http\Types;

use App\Evidence\Rules\TypesInForce;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Timing\BegunResource;
use App\Http\Writing\OfferResource;
use App\Models\Types\RecordTypeDefinition;
use App\Store\Access\AccessScope;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Act;
use VividLedger\Rights\FieldAccess;
use VividLedger\Rights\Reach;
use VividLedger\Rule\Line\BringsLines;
use VividLedger\Rule\Line\Lines;
use VividLedger\Schema\Field;
use VividLedger\Schema\People;
use VividLedger\Schema\RecordType;
use VividLedger\Template\Piece;
use VividLedger\Template\Pieces;
use VividLedger\Time\Unit;

/** The record types, and all that the sentences of a rule can be made of. */
final class SchemaController extends Controller
{
    public function __construct(private readonly AccessScope $inSight, private readonly FieldResources $fields)
    {
    }

    #[
        OA\Get(
            path: '/api/schema',
            operationId: 'schema',
            description: 'The record types with their fields, and what the sentences of a rule can be made of.',
            tags: ['schema'],
            responses: [new Ok(SchemaResource::class)],
        ),
    ]
    public function show(TypesInForce $inForce): SchemaResource
    {
        $rules = $inForce->read();
        $schema = $this->inSight->schema();
        $rows = RecordTypeDefinition::query()->get()->keyBy('name');

        return new SchemaResource(
            array_map(
                fn (RecordType $type): TypeResource => $this->describe(
                    $type,
                    Pieces::besides($schema, $type),
                    $rows->get($type->name),
                    array_values(array_intersect($rules['fills'][$type->name] ?? [], array_keys($type->fields))),
                    in_array($type->name, $rules['byHand'], true),
                ),
                array_values($schema->types),
            ),
            $this->describe(People::type()),
            array_map(static fn (string $line): BegunResource => new BegunResource(
                $line::kind(),
                $line::label(),
                $line::shape()->begun(),
                is_a($line, BringsLines::class, true) ? $line::brings(BegunResource::NAME) : [],
            ), Lines::all()),
            array_map(static fn (Unit $unit): OfferResource => new OfferResource($unit->value, $unit->word().'s'), Unit::cases()),
        );
    }

    /** @return list<string> what whoever asks may ever do with records of the type */
    private function acts(RecordType $type): array
    {
        $role = $this->inSight->sight()->role;

        return array_values(array_map(static fn (Act $act): string => $act->value, array_filter(
            Act::cases(),
            static fn (Act $act): bool => $role->reach($act, $type->name) !== Reach::None,
        )));
    }

    /**
     * @param  list<Piece>  $pieces
     * @param  list<string>  $kept
     */
    private function describe(RecordType $type, array $pieces = [], ?RecordTypeDefinition $row = null, array $kept = [],
        bool $byHand = false): TypeResource
    {
        $role = $this->inSight->sight()->role;
        $retired = array_filter(
            $row->definition['fields'] ?? [],
            static fn (array $field, string $name): bool => ($field['retired'] ?? false)
                && $role->access($type->name, $name) !== FieldAccess::Hidden,
            ARRAY_FILTER_USE_BOTH,
        );

        return new TypeResource(
            name: $type->name, label: $type->label, plural: $type->plural, prefix: $type->prefix, title: $type->title,
            owner: $type->owner, columns: $type->columns,
            fields: array_map(fn (Field $field): FieldResource => $this->fields->of($type->name, $field), array_values($type->fields)),
            stage: $type->stage()?->name,
            pieces: array_map(
                static fn (Piece $piece): OfferResource => new OfferResource($piece->name(), $piece->label()),
                $pieces,
            ),
            version: $row->version ?? 1,
            retired: array_map(
                static fn (string $name, array $field): OfferResource => new OfferResource($name, $field['label']),
                array_keys($retired),
                array_values($retired),
            ),
            may: $this->acts($type), kept: $kept, byHand: $byHand,
        );
    }
}
