<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Describe\Query;
use App\Http\Api\Shape\FoundShape;
use App\Http\Input\FindInput;
use App\Store\Access\InSight;
use App\Store\RecordList;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use VividLedger\Record\Record;

/** Records of every type at once, for whoever knows a number or a part of a name. */
final class FindController extends Controller
{
    private const OF_EACH = 5;

    #[
        OA\Get(
            path: '/api/find',
            operationId: 'find',
            description: 'Records of every type that have each word in one of their texts, or the number that is asked for; the newest '
                .'first, a few of each type.',
            tags: ['records'],
            parameters: [new Query('text', 'string', 'A number, or words.')],
            responses: [new Ok(FoundShape::class, list: true)],
        ),
    ]
    public function index(FindInput $request, InSight $inSight, RecordList $list): JsonResponse
    {
        $text = trim((string) $request->validated()['text']);
        $found = [];
        foreach ($inSight->schema()->types as $type) {
            $records = $text === '' ? [] : $list->page($type, null, $text, [], 1, self::OF_EACH, false)[0];
            array_push($found, ...array_map(static fn (Record $record): FoundShape => new FoundShape(
                $type->name, $record->id, $type->numberOf($record->id), is_string(
                    $title = $record->value($type->title),
                ) ? $title : $type->numberOf($record->id),
            ), $records));
        }

        return new JsonResponse($found);
    }
}
