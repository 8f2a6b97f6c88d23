<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Evidence\Rehearsal\LookBacks;
use App\Evidence\Rehearsal\Rehearsals;
use App\Evidence\Rules\FieldRules;
use App\Evidence\Rules\Proofreading;
use App\Evidence\Rules\WrittenRules;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Ledger\EntryInput;
use App\Http\Records\RecordResource;
use App\Http\Records\RecordResources;
use App\Http\Types\FieldRuleResource;
use App\Http\Writing\WrittenRuleInput;
use App\Store\Access\SeenRules;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\RecordHistory;
use App\Store\RefusedFor;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VividLedger\Proofread\Remark;
use VividLedger\Words\Words;

/** Evidence about a rule before it is in force: its life on one record, and what proofreading finds. Nothing is touched. */
final class EvidenceController extends Controller
{
    #[
        OA\Post(
            path: '/api/remarks',
            operationId: 'remarks',
            description: 'What proofreading finds in a rule file that reads soundly; of one that does not, nothing. Nothing is kept.',
            tags: ['evidence'],
            responses: [new Ok(RemarkResource::class, list: true)],
        ),
    ]
    public function remarks(WrittenRuleInput $request, WrittenRules $written, Proofreading $proofreading): JsonResponse
    {
        $given = $request->validated();
        $rule = $written->page($given['file'], self::number($given, 'rule'))->rule;

        return new JsonResponse(array_map(static fn (Remark $remark): RemarkResource => new RemarkResource(
            level: $remark->level->value, at: $remark->at, code: $remark->code, message: $remark->message, advice: $remark->advice,
            fix: $remark->fix === null ? null
            : new FixResource(
                $remark->fix->label,
                $remark->fix->at,
                $remark->fix->value === null ? null : ['value' => $remark->fix->value],
            ),
        ), $rule === null ? [] : $proofreading->remarks($rule, $given['file'])));
    }

    #[
        OA\Get(
            path: '/api/schema/{type}/fields/{field}/rules',
            operationId: 'fieldRules',
            description: 'Which rules in force could ever change a field.',
            tags: ['evidence'],
            responses: [new Ok(FieldRuleResource::class, list: true)],
        ),
    ]
    public function fieldRules(string $type, string $field, FieldRules $rules, SeenRules $readable): JsonResponse
    {
        $seen = $this->seenType($type);
        $found = $seen->field($field) === null ? [] : $rules->of($seen->name, $field);

        return new JsonResponse(array_values(array_map(
            static fn (array $found): FieldRuleResource => new FieldRuleResource(...$found),
            array_filter($found, static fn (array $found): bool => $readable->mayPage($found['rule'])),
        )));
    }

    #[
        OA\Post(
            path: '/api/look-back',
            operationId: 'lookBack',
            description: 'Replays a rule file over the recorded history, beside the page in force. Answers line by line '
                .'(application/x-ndjson) while it goes; whoever has seen enough hangs up.',
            tags: ['evidence'],
            responses: [
                new OA\Response(
                    response: 200,
                    description: 'A JSON document on each line; the last has "final": true.',
                    content: new OA\MediaType(mediaType: 'application/x-ndjson', schema: new OA\Schema(type: 'string')),
                ),
            ],
        ),
    ]
    public function lookBack(LookBackInput $request, WrittenRules $written, LookBacks $lookBacks, HouseClock $clock): StreamedResponse
    {
        $given = $request->validated();
        $rule = $written->finished($given['file'], self::number($given, 'rule'));
        if (! $rule->own && $rule->again !== null) {
            throw new DomainError(
                'not_possible',
                Words::say('A rule that watches related records, and is ready again by a change of its own record, cannot be looked back '
                    .'on. Leave out “ready again”, or rehearse it.'),
                RefusedFor::Invalid,
            );
        }
        $from = new \DateTimeImmutable($given['from'] ?? '2000-01-01T00:00:00Z');
        $until = isset($given['until']) ? new \DateTimeImmutable($given['until']) : $clock->now();

        return new StreamedResponse(static function () use ($lookBacks, $rule, $from, $until): void {
            // As long as somebody watches; who hangs up ends it.
            set_time_limit(0);
            foreach ($lookBacks->over($rule, $from, $until) as $piece) {
                echo json_encode($piece, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)."\n";
                if (ob_get_level() > 0 && ! app()->runningUnitTests()) {
                    ob_flush();
                }
                flush();
                if (connection_aborted() === 1) {
                    return;
                }
            }
        }, 200, ['Content-Type' => 'application/x-ndjson', 'X-Accel-Buffering' => 'no', 'Cache-Control' => 'no-store']);
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/then',
            operationId: 'recordThen',
            description: 'A record as it stood just after an entry.',
            tags: ['records'],
            responses: [new Ok(RecordResource::class)],
        ),
    ]
    public function then(string $type, int $id, EntryInput $request, RecordHistory $history, RecordResources $records): RecordResource
    {
        $given = $request->validated();
        $record = $history->recordAfter($this->type($type), $id, (int) $given['entry'])
            ?? throw DomainError::missing(Words::say('There was no such record then.'));

        return $records->of($this->type($type), [$record])[0];
    }

    #[
        OA\Post(
            path: '/api/rehearse',
            operationId: 'rehearse',
            description: 'Plays a rule file on a record: {"id"}, {"pick": "matched", "nearly" or "made_up"} or {"values"}. What happens '
                .'first is proposed when it is left out. Nothing is kept.',
            tags: ['evidence'],
            responses: [new Ok(RehearsalResource::class)],
        ),
    ]
    public function play(
        RehearsalInput $request, WrittenRules $written, Rehearsals $rehearsals, RehearsalResources $resources,
    ): RehearsalResource {
        $given = $request->validated();
        $rule = $written->finished($given['file'], self::number($given, 'rule'));

        return $resources->of(
            $rule,
            $rehearsals->play($rule, array_filter($given, static fn (mixed $value): bool => $value !== null), $this->person($request)->id),
        );
    }
}
