<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Lists\SavedView;
use App\Models\People\Person;
use App\Models\Shared;
use App\Store\Access\AccessScope;
use App\Store\DomainError;
use App\Store\Lists\ViewStore;
use App\Store\RefusedFor;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Listing\Column;
use VividLedger\Listing\Sort;
use VividLedger\Rights\Duty;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Views of lists that people keep. */
final class ViewController extends Controller
{
    public function __construct(
        private readonly ViewStore $views,
        private readonly ListAsked $asked,
        private readonly AccessScope $inSight,
    ) {
    }

    #[
        OA\Get(
            path: '/api/records/{type}/views',
            operationId: 'views',
            description: 'The views of a list that whoever asks has, or that are shared with them.',
            tags: ['records'],
            responses: [new Ok(ViewResource::class, list: true)],
        ),
    ]
    public function index(string $type, Request $request): JsonResponse
    {
        [$recordType, $me] = [$this->seenType($type), $this->person($request)];
        $views = SavedView::query()->for($me)->where('record_type', $type)->with('owner')->orderBy('name')->orderBy('id')->get();

        // One whose filter asks for what is hidden from them would tell of it.
        $views = $views->filter(fn (SavedView $view): bool => $this->mayRead($recordType, $view));

        return new JsonResponse(array_values(
            $views->map(fn (SavedView $view): ViewResource => $this->resource($recordType, $view, $me))->all()
        ));
    }

    #[
        OA\Post(
            path: '/api/records/{type}/views',
            operationId: 'keepView',
            description: 'Keeps a view of a list under a name.',
            tags: ['records'],
            responses: [new Ok(ViewResource::class, status: 201)],
        ),
    ]
    public function store(string $type, ViewInput $request): JsonResponse
    {
        [$recordType, $me, $given] = [$this->seenType($type), $this->person($request), $request->validated()];
        $definition = $this->checked($recordType, $given['definition'] ?? []);
        $view = $this->views->add($recordType, $me, trim($given['name']), Shared::from($given['shared']), $definition);

        return new JsonResponse($this->resource($recordType, $view, $me), 201);
    }

    #[
        OA\Put(
            path: '/api/views/{id}',
            operationId: 'changeView',
            description: 'Changes a kept view.',
            tags: ['records'],
            responses: [new Ok(ViewResource::class)],
        ),
    ]
    public function update(int $id, ViewInput $request): ViewResource
    {
        [$me, $given] = [$this->person($request), $request->validated()];
        $view = SavedView::query()->for($me)->find($id)
            ?? throw DomainError::missing(Words::say('There is no such view.'));
        $type = $this->seenType($view->record_type);
        $definition = $this->checked($type, $given['definition'] ?? []);

        return $this->resource($type, $this->views->change(
            $id, (int) ($given['version'] ?? 0), $me, trim($given['name']), Shared::from($given['shared']), $definition,
        ), $me);
    }

    #[
        OA\Delete(
            path: '/api/views/{id}',
            operationId: 'dropView',
            description: 'Removes a kept view.',
            tags: ['records'],
            responses: [new Ok],
        ),
    ]
    public function destroy(int $id, Request $request): Response
    {
        $this->views->remove($id, $this->person($request));

        return response()->noContent();
    }

    /**
     * What is kept of a view, when all that it names is there.
     *
     * @param  array<array-key, mixed>  $given
     * @return array<string, mixed>
     *
     * @throws DomainError
     */
    private function checked(RecordType $type, array $given): array
    {
        $view = $this->asked->view($type, $given);
        if ($view->gone !== []) {
            throw new DomainError('unknown_field', Words::say(
                '{type} has no column ‘{gone}’.',
                type: $type->label,
                gone: $view->gone[0],
            ), RefusedFor::Invalid, array_map(
                static fn (string $name): array => [
                    'at' => '/definition', 'code' => 'unknown_field', 'message' => Words::say('There is no column ‘{name}’.', name: $name),
                ], $view->gone,
            ));
        }
        $filter = $given['filter'] ?? null;
        if ($filter !== null) {
            $this->asked->read($type, $filter);
        }

        return [
            'columns' => array_map(self::written(...), $view->columns), 'sort' => array_map(self::sorted(...), $view->sorts),
            'group' => $view->group?->of, 'sums' => array_map(static fn (Field $field): string => $field->name, $view->sums),
            'layout' => $view->layout->value, 'filter' => $filter, 'search' => trim((string) ($given['search'] ?? '')),
        ];
    }

    private function mayRead(RecordType $type, SavedView $view): bool
    {
        $filter = $view->definition['filter'] ?? null;
        try {
            if ($filter !== null && ! $this->inSight->isEverything()) {
                $this->asked->read($this->inSight->sight()->type($type), $filter);
            }

            return true;
        } catch (DomainError) {
            return false;
        }
    }

    private function resource(RecordType $type, SavedView $view, Person $me): ViewResource
    {
        $read = $this->asked->view($type, $view->definition);

        return new ViewResource(
            id: $view->id, version: $view->version, name: $view->name, ownerName: $view->owner->name,
            mayChange: $view->owner_id === $me->id || $me->may(Duty::KeepHouse), shared: $view->shared->value,
            columns: array_map(self::written(...), $read->columns), sort: array_map(self::sorted(...), $read->sorts),
            group: $read->group?->of, sums: array_map(static fn (Field $field): string => $field->name, $read->sums),
            layout: $read->layout->value, filter: $view->definition['filter'] ?? null, search: $view->definition['search'] ?? '',
            gone: $read->gone,
        );
    }

    private static function written(Column $column): string
    {
        return $column->of.($column->width === null ? '' : ":{$column->width}");
    }

    private static function sorted(Sort $sort): string
    {
        return ($sort->descending ? '-' : '').$sort->by->of;
    }
}
