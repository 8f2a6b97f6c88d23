<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Setup\StartResource;
use App\Models\Columns;
use App\Models\Inbound\Hook;
use App\Models\Inbound\HookArrival;
use App\Models\Inbound\HookOutcome;
use App\Store\DomainError;
use App\Store\Inbound\HookStore;
use App\Store\People\PeopleStore;
use App\Store\Records\RecordInput;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use App\Work\Inbound\HookReading;
use App\Work\Inbound\WebhookIngest;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Display;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/** Hooks, to which other systems post, and what arrived there. */
final class HookController extends Controller
{
    private const MOST = 50;

    /** What is longer is shown in part, and can be taken again as it is only. */
    private const LONGEST = 20_000;

    public function __construct(
        private readonly HookStore $hooks,
        private readonly WebhookIngest $door,
        private readonly SchemaStore $schemas,
        private readonly PeopleStore $names,
        private readonly Company $company,
    ) {
    }

    #[OA\Get(path: '/api/hooks', operationId: 'hooks', description: 'The addresses to which other systems post.', tags: ['hooks'],
        responses: [new Ok(HookResource::class, list: true)])]
    public function index(): JsonResponse
    {
        $refused = HookArrival::rows()->where('outcome', HookOutcome::Refused->value)->groupBy('hook_id')
            ->selectRaw('hook_id, COUNT(*) AS count')->pluck('count', 'hook_id')->all();

        return new JsonResponse(Hook::query()->orderBy('name')->get()->map(
            static fn (Hook $hook): HookResource => self::resource($hook, null, (int) ($refused[$hook->id] ?? 0)),
        )->all());
    }

    #[OA\Post(path: '/api/hooks', operationId: 'keepHook', description: 'Opens an address to which another system can post.',
        tags: ['hooks'], responses: [new Ok(HookResource::class, status: 201)])]
    public function store(HookInput $request): JsonResponse
    {
        [$hook, $secret] = $this->hooks->keep(null, null, $request->given());

        return new JsonResponse(self::resource($hook, $secret, 0), 201);
    }

    #[OA\Put(path: '/api/hooks/{id}', operationId: 'changeHook', description: 'Changes what arrives there becomes, or gives it another '
        .'secret.', tags: ['hooks'], responses: [new Ok(HookResource::class)])]
    public function update(int $id, HookInput $request): HookResource
    {
        [$hook, $secret] = $this->hooks->keep($id, self::number($request->validated(), 'version'), $request->given());

        return self::resource($hook, $secret, HookArrival::query()->where('hook_id', $id)->where('outcome', HookOutcome::Refused)->count());
    }

    #[OA\Delete(path: '/api/hooks/{id}', operationId: 'dropHook', description: 'Closes the address for good; what it made stays.',
        tags: ['hooks'], responses: [new Ok])]
    public function destroy(int $id): Response
    {
        $this->hooks->drop($id);

        return response()->noContent();
    }

    #[OA\Get(path: '/api/hooks/{id}/arrivals', operationId: 'hookArrivals', description: 'What arrived there, the latest first.',
        tags: ['hooks'], responses: [new Ok(HookArrivalResource::class, list: true)])]
    public function arrivals(int $id): JsonResponse
    {
        $this->hook($id);
        // A list is asked for again and again: it brings no more of a long text than is shown.
        $rows = HookArrival::query()->where('hook_id', $id)->latest('id')->limit(self::MOST)
            ->select(['id', 'hook_id', 'key', 'at', 'outcome', 'record_type', 'record_id', 'times', 'trouble'])
            ->selectRaw('LEFT(raw, ?) AS raw', [self::LONGEST + 1])->get();
        foreach ($rows->whereNotNull('record_id')->groupBy('record_type') as $type => $ofType) {
            $this->names->rememberTitles((string) $type, Columns::ints($ofType->pluck('record_id')));
        }

        return new JsonResponse($rows->map($this->arrival(...))->all());
    }

    #[OA\Post(path: '/api/hooks/{id}/try', operationId: 'tryHook', description: 'Says what would come of something that arrived there; '
        .'nothing is done.', tags: ['hooks'], responses: [new Ok(HookReadResource::class)])]
    public function look(int $id, HookTextInput $request, HookReading $reading, RecordInput $input): HookReadResource
    {
        $hook = $this->hook($id);
        $type = $this->schemas->schema()->type($hook->record_type)
            ?? throw new DomainError('no_type', Words::say('Its record type is gone.'));
        $read = $reading->of($hook, $type, (string) $request->validated()['text']);
        $values = [];
        $display = Display::spoken($this->names, $this->company->zone());
        foreach ($input->checked($type, $read->values, $read->record) as $name => $value) {
            $values[$type->fields[$name]->label] = $display->of($type->fields[$name], $value);
        }

        return new HookReadResource($read->record?->id, $read->record === null ? '' : $type->numberOf($read->record->id), $values);
    }

    #[OA\Post(path: '/api/hook-arrivals/{id}/again', operationId: 'takeHookAgain', description: 'Takes once more what could not be taken, '
        .'as it was or mended.', tags: ['hooks'],
        responses: [new Ok(HookArrivalResource::class)])]
    public function again(int $id, HookTextInput $request): HookArrivalResource
    {
        $text = $request->validated()['text'] ?? null;

        return $this->arrival($this->door->again($id, $text === null ? null : (string) $text));
    }

    private function hook(int $id): Hook
    {
        return Hook::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such hook.'));
    }

    private function arrival(HookArrival $arrival): HookArrivalResource
    {
        $record = $arrival->record_id;

        return new HookArrivalResource(
            id: $arrival->id, key: $arrival->key, at: Value::instantText($arrival->at), outcome: $arrival->outcome->value,
            recordType: $arrival->record_type, record: $record,
            recordNumber: $record === null ? '' : $this->schemas->schema()->type($arrival->record_type)?->numberOf($record) ?? '',
            recordTitle: $record === null ? '' : $this->names->title($arrival->record_type, $record) ?? '', times: $arrival->times,
            trouble: $arrival->trouble, text: mb_substr($arrival->raw, 0, self::LONGEST),
            isWhole: mb_strlen($arrival->raw) <= self::LONGEST,
        );
    }

    private static function resource(Hook $hook, ?string $secret, int $refused): HookResource
    {
        return new HookResource(
            id: $hook->id, name: $hook->name, version: $hook->version, url: url("/hook/{$hook->key}"), secret: $secret,
            recordType: $hook->record_type,
            takes: array_map(static fn (array $one): TakenResource => new TakenResource($one['path'], $one['field']), $hook->takes),
            starts: array_map(static fn (array $one): StartResource => new StartResource($one['field'], $one['value']), $hook->starts),
            knownBy: $hook->known_by, mayCreate: $hook->may_create, isOpen: $hook->is_open, turnedAway: $hook->turned_away,
            turnedAwayAt: $hook->turned_away_at === null ? null : Value::instantText($hook->turned_away_at), refused: $refused,
        );
    }
}
