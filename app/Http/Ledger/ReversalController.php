<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Evidence\Ledger\Reversal;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Records\ConflictResource;
use App\Models\Ledger\Entry;
use App\Store\Access\AccessScope;
use App\Store\Access\RecordAuthorizer;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Act;
use VividLedger\Words\Words;

/** Reversals of what rules did. */
final class ReversalController extends Controller
{
    public function __construct(
        private readonly Reversal $reversal,
        private readonly RecordAuthorizer $gate,
        private readonly AccessScope $inSight,
        private readonly SchemaStore $schemas,
    ) {
    }

    #[
        OA\Post(
            path: '/api/reversals/preview',
            operationId: 'previewReversal',
            description: 'What it would come to to reverse entries: those named, or all of a rule in a span that are not reversed yet.',
            tags: ['evidence'],
            responses: [new Ok(ReversalPreview::class)],
        ),
    ]
    public function preview(ReversalPreviewInput $request): ReversalPreview
    {
        $given = $request->validated();
        $entries = array_values(array_map(intval(...), $given['entries'] ?? []));
        if (isset($given['rule'])) {
            if (! isset($given['from'], $given['until'])) {
                throw new DomainError(
                    'no_span',
                    Words::say('Say from when until when.'),
                    RefusedFor::Invalid,
                    [['at' => '/from', 'code' => 'no_span', 'message' => Words::say('Say from when until when.')]],
                );
            }
            $entries = $this->reversal->entriesOf(
                (int) $given['rule'],
                new \DateTimeImmutable($given['from']),
                new \DateTimeImmutable($given['until']),
            );
        }
        $this->reversal->mustExist($entries);
        if (! $this->inSight->isEverything()) {
            // What stands in the way is told with its values.
            $this->mustMay($entries);
        }
        $sum = $this->reversal->preview($entries);

        return new ReversalPreview(
            entries: $sum['entries'], fields: $sum['fields'], tasks: $sum['tasks'], lines: $sum['lines'], signOffs: $sum['signOffs'],
            slips: $sum['slips'], sent: $sum['sent'],
            conflicts: array_map(
                static fn (array $conflict): ConflictResource => new ConflictResource(...$conflict),
                array_slice($sum['conflicts'], 0, 200),
            ),
        );
    }

    #[
        OA\Post(
            path: '/api/reversals',
            operationId: 'reverse',
            description: 'Reverses at most 50 entries, of rules or edits, one’s own or as an administrator; all of them or none. One that '
                .'is reversed already is passed over. A field that was changed since stays, unless it is forced.',
            tags: ['evidence'],
            responses: [new Ok(ReversedResource::class)],
        ),
    ]
    public function reverse(ReversalInput $request): ReversedResource
    {
        $given = $request->validated();

        $entries = array_values(array_map(intval(...), $given['entries']));
        $this->reversal->mustExist($entries);
        $this->mustMay($entries);

        return new ReversedResource($this->reversal->reverse(
            $entries,
            (bool) ($given['force'] ?? false),
            (string) ($given['why'] ?? ''),
            $this->person($request)->id,
        ));
    }

    /** @param  list<int>  $entries */
    private function mustMay(array $entries): void
    {
        foreach (Entry::query()->findMany($entries) as $entry) {
            $this->authorize('reverse', $entry);
            if ($entry->record_type !== null && $entry->record_id !== null) {
                $this->gate->mustMay(Act::Change, $this->type($entry->record_type), $entry->record_id);
            }
        }
        foreach ($this->reversal->touches($entries) as $name => $records) {
            foreach ($this->schemas->schema()->type($name) === null ? [] : $records as $id => $fields) {
                $this->gate->mustMay(Act::Change, $this->type($name), $id);
                $this->gate->mustWrite($this->type($name), array_flip($fields));
            }
        }
    }
}
