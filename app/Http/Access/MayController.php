<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Columns;
use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Store\Access\AccessScope;
use App\Store\DomainError;
use App\Store\People\PeopleStore;
use App\Store\Records\RecordHistory;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use VividLedger\Rights\AccessProfile;
use VividLedger\Rights\Act;
use VividLedger\Rights\Duty;
use VividLedger\Rights\FieldAccess;
use VividLedger\Rights\Reach;
use VividLedger\Rights\Reasons;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Answers what somebody may see and do, and why: with all records, or with one. */
final class MayController extends Controller
{
    public function __construct(private readonly SchemaStore $schemas, private readonly AccessScope $inSight)
    {
    }

    #[OA\Get(path: '/api/people/{id}/may', operationId: 'may', description: 'What somebody may see and do, and by what.',
        tags: ['company'], responses: [new Ok(MayResource::class)])]
    public function show(int $id): MayResource
    {
        $person = $this->somebody($id);
        $sight = $person->sight();
        $names = static fn (array $ids): array => Columns::texts(
            Person::query()->whereIn('id', $ids)->whereKeyNot($person->id)->where('active', true)->orderBy('name')->pluck('name'),
        );

        return new MayResource(
            $sight->role->label,
            array_map(static fn (Duty $duty): string => $duty->label(), $sight->role->duties),
            array_map(
                fn (RecordType $type): MayTypeResource => $this->ofType($person, $type),
                array_values($this->schemas->schema()->types),
            ),
            $names($person->teamIds()),
            $names($person->idsBelow()),
        );
    }

    #[OA\Get(path: '/api/people/{id}/may/{type}/{number}', operationId: 'mayWith', description: 'What somebody may do with one record, '
        .'and why.', tags: ['company'], responses: [new Ok(MayActResource::class, list: true)])]
    public function with(int $id, string $type, int $number, PeopleStore $names, RecordHistory $history): JsonResponse
    {
        $person = $this->somebody($id);
        $recordType = $this->type($type);
        $record = RecordSql::record($recordType, $number) ?? $history->beforeDeletion($recordType, $number)
            ?? throw DomainError::noRecord($recordType, $number);
        $asked = $names->person($id) ?? throw new \LogicException('Somebody who is there has a name.');
        $reasons = new Reasons($person->sight(), $asked, $names);

        return new JsonResponse(array_map(static fn (Act $act): MayActResource => new MayActResource(
            $act->value, $act->label(), $reasons->may($act, $recordType, $record), $reasons->of($act, $recordType, $record),
            $person->sight()->role->reach($act, $recordType->name)->value,
        ), array_values(array_filter(Act::cases(), static fn (Act $act): bool => $act !== Act::Create))));
    }

    private function ofType(Person $person, RecordType $type): MayTypeResource
    {
        $sight = $person->sight();
        $where = $this->inSight->of($person)->where($type, StoredRecord::tableOf($type->name));
        $all = StoredRecord::rowsOf($type)->count();

        return new MayTypeResource(
            type: $type->name, plural: $type->plural,
            seen: $where === null ? $all : StoredRecord::rowsOf($type)->whereRaw($where)->count(), all: $all,
            acts: array_map(static function (Act $act) use ($sight, $type): MayActResource {
                $reach = $sight->role->reach($act, $type->name);

                return new MayActResource($act->value, $act->label(), $reach !== Reach::None, $reach->label(), $reach->value);
            }, Act::cases()),
            hidden: self::labels($type, $sight, FieldAccess::Hidden), readOnly: self::labels($type, $sight, FieldAccess::ReadOnly),
        );
    }

    /** @return list<string> */
    private static function labels(RecordType $type, AccessProfile $sight, FieldAccess $access): array
    {
        $seen = $sight->type($type);
        $has = static fn (Field $field): bool => $access === FieldAccess::Hidden ? $seen->field($field->name) === null
            : $sight->role->access($type->name, $field->name) === $access;

        return array_values(array_map(static fn (Field $field): string => $field->label, array_filter($type->fields, $has)));
    }

    private function somebody(int $id): Person
    {
        return Person::query()->find($id) ?? throw DomainError::missing(Words::say('There is no person {id}.', id: $id));
    }
}
