<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Describe\Query;
use App\Http\Api\Shape\AnswerShape;
use App\Http\Api\Shape\EntryDetail;
use App\Http\Api\Shape\EntryShape;
use App\Http\Api\Shape\LedgerPage;
use App\Http\Api\Shape\MomentAnswers;
use App\Http\Api\Shape\VerdictShape;
use App\Http\Input\LedgerInput;
use App\Http\Input\OneRuleInput;
use App\Http\Input\WhyInput;
use App\Store\HouseClock;
use App\Store\Refused;
use App\Store\RefusedFor;
use App\Store\WhyNot;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Duty;

/** The ledger: every entry, and why it is there. */
final class LedgerController extends Controller
{
    private const KINDS = [
        'edits' => ['created', 'changed', 'deleted', 'restored', 'comment', 'file', 'reply', 'by_hand', 'hook_brought'],
        'rules' => [
            'fired', 'stopped', 'refused', 'ready_again', 'line', 'struck', 'retimed', 'postponed', 'too_late', 'line_failed', 'held',
            'resumed', 'gathered', 'reversed', 'unsure', 'cut_off',
        ],
        'tasks' => ['task_done', 'task_reopened', 'task_due', 'task_changed'],
        'administration' => [
            'rule_in_force', 'rule_paused', 'rule_retired', 'rules_ordered', 'rule_in_set', 'company_opened', 'setup_applied',
            'person_invited',
            'person_joined', 'person_left',
            'person_changed', 'goes_away', 'comes_back', 'signed_in', 'signed_out', 'password_reset', 'password_changed',
            'second_factor_on', 'second_factor_off', 'token_made', 'token_ended', 'role_added', 'role_changed', 'role_removed',
            'exported', 'type_added', 'type_changed',
            'field_added', 'field_changed', 'field_retired', 'field_back',
        ],
    ];

    public function __construct(private readonly Entries $entries, private readonly SeenEntries $seen)
    {
    }

    #[OA\Get(path: '/api/ledger', operationId: 'ledger', description: 'Entries, the newest first; with "after", those that came since, '
        .'the oldest first. All can be read by asking again with the number that comes back.', tags: ['ledger'], parameters: [
            new Query(
                'show',
                'string',
                'Entries of one sort only.',
                ['edits', 'rules', 'tasks', 'administration'],
            ), new Query('rule', 'integer'), new Query('before', 'integer', 'Only entries with a lower '
                .'number.'), new Query('after', 'integer', 'Only entries with a higher number, the lowest first.'),
        ], responses: [new Ok(LedgerPage::class)])]
    public function index(LedgerInput $request): LedgerPage
    {
        $given = $request->validated();
        $kinds = isset($given['show']) ? self::KINDS[$given['show']] : null;
        $after = self::number($given, 'after');
        $doors = $this->person($request)->may(Duty::SeeDoors);
        $entries = $this->entries->page($kinds, self::number($given, 'rule'), self::number($given, 'before'), $after, $doors);
        $last = $entries[count($entries) - 1]->number ?? null;

        return new LedgerPage(
            $entries,
            $after === null && count($entries) === Entries::A_PAGE ? $last : null,
            $after === null ? null : $last ?? $after,
        );
    }

    #[
        OA\Get(
            path: '/api/ledger/{number}',
            operationId: 'entry',
            description: 'One entry, what caused it, and what it caused.',
            tags: ['ledger'],
            responses: [new Ok(EntryDetail::class)],
        ),
    ]
    public function show(int $number, Request $request): EntryDetail
    {
        $entry = $this->mine($number, $request);

        return new EntryDetail($entry, $this->entries->causesOf($entry), $this->entries->causedBy($number));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/why',
            operationId: 'whyAtMoment',
            description: 'Why a rule did or did not fire on a record at a moment: what it made of the last thing that happened to the '
                .'record until then.',
            tags: ['ledger'],
            parameters: [new Query('at', 'string', 'A moment; left out, now.'), new Query('rule', 'integer', 'Of one rule only.')],
            responses: [new Ok(MomentAnswers::class)],
        ),
    ]
    public function why(string $type, int $id, WhyInput $request, WhyNot $whyNot, HouseClock $clock): MomentAnswers
    {
        $given = $request->validated();
        $at = isset($given['at']) ? new \DateTimeImmutable($given['at']) : $clock->now();
        $entry = $this->entries->lastAnswerable($this->type($type)->name, $id, $at)
            ?? throw new Refused(
                'nothing_happened',
                'Nothing had happened to the record by then, so no rule was asked.',
                RefusedFor::Missing,
            );
        $answer = static fn (array $answer): AnswerShape => new AnswerShape(
            $answer['rule'], $answer['name'], $answer['page'], $answer['firedIn'], VerdictShape::of($answer['verdict']),
        );

        return new MomentAnswers($entry,
            array_map($answer, $this->told($whyNot->answers($entry->number, self::number($given, 'rule')), $type)));
    }

    #[
        OA\Get(
            path: '/api/ledger/{number}/answers',
            operationId: 'answers',
            description: 'What every rule then in force made of a save: the answer to "why" and "why not".',
            tags: ['ledger'],
            parameters: [new Query('rule', 'integer')],
            responses: [new Ok(AnswerShape::class, list: true)],
        ),
    ]
    public function answers(int $number, OneRuleInput $request, WhyNot $whyNot): JsonResponse
    {
        $given = $request->validated();
        $entry = $this->mine($number, $request);

        return new JsonResponse($this->told($whyNot->answers($number, self::number($given, 'rule')), (string) $entry->recordType));
    }

    /** An entry that whoever asks may read: about a record they see, or any, for those who read the ledger. */
    private function mine(int $number, Request $request): EntryShape
    {
        $person = $this->person($request);
        $entry = $this->entries->one($number, $person->may(Duty::SeeDoors));

        return $entry !== null && ($entry->recordType !== null || $person->may(Duty::SeeLedger)) ? $entry
            : throw new Refused('not_found', "There is no entry {$number}.", RefusedFor::Missing);
    }

    /**
     * @template TAnswer of array{rule: int, page: int}
     *
     * @param  list<TAnswer>  $answers
     * @return list<TAnswer> of the rules whose conditions read nothing that is kept from whoever asks
     */
    private function told(array $answers, string $on): array
    {
        return array_values(array_filter($answers, fn (array $one): bool => $this->seen->mayReadRule($one['rule'], $one['page'], $on)));
    }
}
