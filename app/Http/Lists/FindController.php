<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Lists\SavedView;
use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\Lists\RecordSearch;
use Illuminate\Support\Collection;
use OpenApi\Attributes as OA;

/** Records of every type at once, for whoever knows a number or a part of a name. */
final class FindController extends Controller
{
    private const MOST = 20;

    #[
        OA\Get(
            path: '/api/find',
            operationId: 'find',
            description: 'Records of every type that have each word, or its beginning, in one of their texts, or the number that is asked '
                .'for, the best first; where there is none, those that are nearly called so. Rules, people and views besides.',
            tags: ['records'],
            responses: [new Ok(FoundAllResource::class)],
        ),
    ]
    public function index(FindInput $request, AccessScope $inSight, RecordSearch $finding): FoundAllResource
    {
        $text = trim((string) $request->validated()['text']);
        [$records, $nearly] = $text === '' ? [[], ''] : $finding->records($text, self::MOST);
        $types = $inSight->schema()->types;

        return new FoundAllResource(array_map(static fn (array $record): FoundResource => new FoundResource(
            $record['type'], $record['id'], $types[$record['type']]->numberOf($record['id']),
            $record['title'] === '' ? $types[$record['type']]->numberOf($record['id']) : $record['title'],
        ), $records), $nearly, $this->views($text, $this->person($request), array_keys($types)));
    }

    /**
     * @param  list<string>  $types
     * @return list<OfferedViewResource> those of the lists of all types that are called so
     */
    private function views(string $text, Person $me, array $types): array
    {
        $views = $text === '' ? [] : SavedView::query()->for($me)->whereIn('record_type', $types)
            ->where('name', 'like', '%'.addcslashes($text, '\\%_').'%')->orderBy('name')->limit(self::MOST)->get();

        return array_values(array_map(
            static fn (SavedView $view): OfferedViewResource => new OfferedViewResource($view->id, $view->record_type, $view->name),
            $views instanceof Collection ? $views->all() : $views,
        ));
    }
}
