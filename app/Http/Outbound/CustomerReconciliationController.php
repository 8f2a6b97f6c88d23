<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Work\Outbound\CustomerReconciliation;
use App\Work\Outbound\Difference;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;

/** Whether the accounting system and we say the same of our customers. */
final class CustomerReconciliationController extends Controller
{
    public function __construct(private readonly CustomerReconciliation $step)
    {
    }

    #[OA\Get(path: '/api/in-step', operationId: 'inStep', description: 'Where the accounting system and we are not in step.',
        tags: ['calls'], responses: [new Ok(DifferenceResource::class, list: true)])]
    public function index(): JsonResponse
    {
        return new JsonResponse(array_map(static function (Difference $one): DifferenceResource {
            $title = $one->record?->value('name') ?? $one->fields['Name'][1] ?? '';

            return new DifferenceResource(
                kind: $one->kind, number: $one->number, recordId: $one->record?->id, recordType: $one->record->type ?? '',
                title: is_string($title) ? $title : '',
                fields: array_map(
                    static fn (string $label, array $both): DifferenceFieldResource => new DifferenceFieldResource($label, ...$both),
                    array_keys($one->fields),
                    $one->fields,
                ),
            );
        }, $this->step->differences()));
    }

    #[OA\Post(path: '/api/in-step/mend', operationId: 'mendStep', description: 'Mends a difference: ours is written there, theirs here, '
        .'or our number of it is forgotten.', tags: ['calls'], responses: [new Ok])]
    public function mend(MendInput $request): Response
    {
        $given = $request->validated();
        $this->step->mend((int) $given['recordId'], $given['way'], $this->actor($request));

        return response()->noContent();
    }
}
