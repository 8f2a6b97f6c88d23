<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Columns;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\StoredCall;
use App\Store\DomainError;
use App\Store\People\PeopleStore;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use App\Work\Outbound\CallDispatcher;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/** Calls of other systems: what was sent and what came back; those that were given up can be mended and sent again. */
final class CallController extends Controller
{
    private const AS_READ = JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES;

    private const LONGEST = 20_000;

    private const MOST_AT_ONCE = 500;

    public function __construct(
        private readonly SchemaStore $schemas,
        private readonly PeopleStore $names,
        private readonly CallDispatcher $caller,
    ) {
    }

    #[OA\Get(path: '/api/calls', operationId: 'calls', description: 'Calls of other systems, the latest first.', tags: ['calls'],
        responses: [new Ok(CallPage::class)])]
    public function index(CallListInput $request): CallPage
    {
        $given = $request->validated();
        $calls = StoredCall::query()->with('rule')
            ->when(isset($given['status']), static fn (Builder $calls): Builder => $calls->where('status', $given['status']))
            ->when(isset($given['endpoint']), static fn (Builder $calls): Builder => $calls->where('endpoint', $given['endpoint']));

        $rows = $calls->clone()->latest('id')->limit(self::number($given, 'limit') ?? 50)->get();
        foreach ($rows->groupBy('record_type') as $type => $ofType) {
            $this->names->rememberTitles((string) $type, Columns::ints($ofType->pluck('record_id')));
        }

        return new CallPage(array_values($rows->map($this->resource(...))->all()), $calls->count());
    }

    #[OA\Post(path: '/api/calls/{id}/again', operationId: 'callAgain', description: 'Makes a call again that was given up, as it was or '
        .'with other data, under the same key.', tags: ['calls'],
        responses: [new Ok(CallResource::class)])]
    public function again(int $id, CallAgainInput $request): CallResource
    {
        $given = $request->validated()['payload'] ?? null;
        $payload = $given === null ? null : json_decode((string) $given, true);
        if ($given !== null && (! is_array($payload) || ($payload !== [] && array_is_list($payload)))) {
            $message = Words::say('What is sent is a JSON object, in braces.');
            throw new DomainError('invalid_values', $message, RefusedFor::Invalid, [
                ['at' => '/payload', 'code' => 'not_json', 'message' => $message],
            ]);
        }
        if (! $this->caller->again($id, $payload)) {
            throw StoredCall::query()->whereKey($id)->exists()
                ? new DomainError('wrong_state', Words::say('Only a call that was given up can be made again.'), RefusedFor::Conflict)
                : DomainError::missing(Words::say('There is no such call.'));
        }

        return $this->resource(StoredCall::query()->with('rule')->findOrFail($id));
    }

    #[OA\Post(path: '/api/calls/again', operationId: 'callAllAgain', description: 'Makes all calls to an endpoint again that were given '
        .'up.', tags: ['calls'], responses: [new Ok])]
    public function allAgain(CallsAgainInput $request): Response
    {
        $ids = StoredCall::query()->where('status', CallStatus::Failed)->where('endpoint', $request->validated()['endpoint'])
            ->orderBy('id')->limit(self::MOST_AT_ONCE)->pluck('id');

        foreach (Columns::ints($ids) as $id) {
            $this->caller->again($id);
        }

        return response()->noContent();
    }

    private function resource(StoredCall $call): CallResource
    {
        return new CallResource(
            id: $call->id, endpoint: $call->endpoint, rule: $call->rule->name ?? '', recordType: $call->record_type,
            recordId: $call->record_id,
            recordNumber: $this->schemas->schema()->type($call->record_type)?->numberOf($call->record_id) ?? '',
            recordTitle: $this->names->title($call->record_type, $call->record_id) ?? '', status: $call->status->value,
            madeAt: Value::instantText($call->made_at), endedAt: $call->ended_at === null ? null : Value::instantText($call->ended_at),
            tries: $call->tries, unsure: $call->unsure,
            payload: $call->payload === [] ? '{}' : (string) json_encode($call->payload, self::AS_READ),
            answerStatus: $call->answer_status, answer: mb_substr((string) $call->answer, 0, self::LONGEST), trouble: $call->trouble,
        );
    }
}
