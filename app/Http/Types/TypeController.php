<?php

declare(strict_types=1);

namespace App\Http\Types;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Rehearsal\MadeResource;
use App\Store\Types\FieldUses;
use App\Store\Types\TypeRepository;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;

/** Record types and their fields, made and changed by whoever sets the house up. */
final class TypeController extends Controller
{
    public function __construct(private readonly TypeRepository $keeper)
    {
    }

    #[OA\Post(path: '/api/types', operationId: 'addType', description: 'Makes a record type with a name, an owner and notes.',
        tags: ['schema'],
        responses: [new Ok(MadeResource::class, status: 201)])]
    public function store(TypeInput $request): JsonResponse
    {
        $given = $request->validated();

        return new JsonResponse(new MadeResource(
            $this->keeper->add($given['label'], $given['plural'], $this->person($request)->id),
        ), 201);
    }

    #[OA\Patch(path: '/api/types/{type}', operationId: 'changeType', description: 'Changes what a record type is called, the order of its '
        .'fields, and what its list shows. What is left out stays.', tags: ['schema'], responses: [new Ok])]
    public function update(string $type, TypeInput $request): Response
    {
        $given = $request->validated();
        $this->keeper->change($type, (int) $given['version'], $given, $this->person($request)->id);

        return response()->noContent();
    }

    #[OA\Post(path: '/api/types/{type}/fields', operationId: 'addField', description: 'Adds a field; records have it at once, empty.',
        tags: ['schema'], responses: [new Ok(MadeResource::class, status: 201)])]
    public function addField(string $type, FieldInput $request): JsonResponse
    {
        return new JsonResponse(new MadeResource(
            $this->keeper->addField($type, $request->validated(), $this->person($request)->id),
        ), 201);
    }

    #[OA\Patch(path: '/api/types/{type}/fields/{field}', operationId: 'changeField', description: 'Changes a field. What is left out '
        .'stays; a choice that is left out is retired.', tags: ['schema'], responses: [new Ok])]
    public function changeField(string $type, string $field, FieldInput $request): Response
    {
        $given = $request->validated();
        $this->keeper->changeField($type, $field, (int) $given['version'], $given, $this->person($request)->id);

        return response()->noContent();
    }

    #[OA\Get(path: '/api/types/{type}/fields/{field}/uses', operationId: 'fieldUses',
        description: 'What would read worse without the field: '
        .'rules, letters, slips, routes, conditions, lists, and roles that name it.', tags: ['schema'],
        responses: [new Ok(UseResource::class, list: true)])]
    public function uses(string $type, string $field, FieldUses $uses): JsonResponse
    {
        return new JsonResponse(array_map(
            static fn (array $use): UseResource => new UseResource(...$use),
            $uses->of($this->type($type)->name, $field),
        ));
    }

    #[OA\Delete(path: '/api/types/{type}/fields/{field}', operationId: 'retireField', description: 'Retires a field that no rule names. '
        .'Its values are kept.', tags: ['schema'], responses: [new Ok])]
    public function retire(string $type, string $field, Request $request): Response
    {
        $this->keeper->retire($type, $field, $this->person($request)->id);

        return response()->noContent();
    }

    #[OA\Post(path: '/api/types/{type}/fields/{field}/back', operationId: 'bringFieldBack', description: 'Brings a retired field back, '
        .'with its values.', tags: ['schema'], responses: [new Ok])]
    public function bringBack(string $type, string $field, Request $request): Response
    {
        $this->keeper->bringBack($type, $field, $this->person($request)->id);

        return response()->noContent();
    }
}
