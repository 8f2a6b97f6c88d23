<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Describe\Controller;
use App\Http\Describe\CsvAnswer;
use App\Http\Describe\Ok;
use App\Http\Rules\OneRuleInput;
use App\Http\SignOffs\AnswerResource;
use App\Http\SignOffs\MomentAnswers;
use App\Store\Access\AccessEntries;
use App\Store\Access\AccessScope;
use App\Store\CsvLine;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Rules\WhyNot;
use App\Store\Setup\Company;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** The ledger: every entry, and why it is there. */
final class LedgerController extends Controller
{
    public function __construct(
        private readonly Entries $entries,
        private readonly SeenEntries $seen,
        private readonly AccessScope $inSight,
        private readonly Company $company,
    ) {
    }

    #[OA\Get(path: '/api/ledger', operationId: 'ledger', description: 'Entries, the newest first; with "after", those that came since, '
        .'the oldest first. All can be read by asking again with the number that comes back.', tags: ['ledger'],
        responses: [new Ok(LedgerPage::class)])]
    public function index(LedgerInput $request): LedgerPage
    {
        $given = $request->validated();
        $after = self::number($given, 'after');
        $doors = $this->person($request)->may(Duty::SeeDoors);
        if ($after === null) {
            $text = trim((string) ($given['text'] ?? ''));
            [$entries, $next] = $this->page($this->asked($given), $text, self::number($given, 'before'), $doors);

            return new LedgerPage($entries, $next, null);
        }
        $entries = $this->entries->page($this->asked($given), null, $after, $doors);

        return new LedgerPage($entries, null, $entries[count($entries) - 1]->number ?? $after);
    }

    #[OA\Get(path: '/api/ledger/file', operationId: 'ledgerFile',
        description: 'The same entries as a file (CSV), the newest first. That they '
        .'were taken out stands in the ledger.', tags: ['ledger'],
        responses: [new OA\Response(response: 200, description: 'UTF-8, RFC 4180.',
            content: new OA\MediaType(mediaType: 'text/csv', schema: new OA\Schema(type: 'string')))])]
    public function file(LedgerFileInput $request, AccessEntries $kept): StreamedResponse
    {
        $given = $request->validated();
        $asked = $this->asked($given);
        $text = trim((string) ($given['text'] ?? ''));
        $person = $this->person($request);
        $kept->write('exported', $person->id, ['title' => 'entries of the ledger', 'records' => 'all']);

        return CsvAnswer::of('ledger', fn (): iterable => $this->lines($asked, $text, $person->may(Duty::SeeDoors)));
    }

    /** @return \Generator<string> */
    private function lines(LedgerAsked $asked, string $text, bool $doors): \Generator
    {
        yield CsvLine::of([Words::say('Number'), Words::say('At'), Words::say('Who'), Words::say('What'),
            Words::say('Record'), Words::say('Rule'), Words::say('Detail'), Words::say('Request')]);
        $before = null;
        do {
            [$read, $before] = $this->page($asked, $text, $before, $doors);
            foreach ($read as $entry) {
                yield CsvLine::of([
                    (string) $entry->number, $entry->at, (string) $entry->who,
                    trim("{$entry->headInLedger->strong} {$entry->headInLedger->rest}"),
                    (string) $entry->recordNumber, (string) $entry->ruleName, $entry->detail, (string) $entry->request,
                ]);
            }
        } while ($before !== null);
    }

    /** @return array{list<EntryResource>, ?int} a page, and before which number it is gone on with; null where that were all */
    private function page(LedgerAsked $asked, string $text, ?int $before, bool $doors): array
    {
        if ($text !== '') {
            return $this->entries->saying($text, $asked, $before, $doors);
        }
        $entries = $this->entries->page($asked, $before, null, $doors);

        return [$entries, count($entries) === Entries::A_PAGE ? $entries[Entries::A_PAGE - 1]->number : null];
    }

    /**
     * @param  array<string, mixed>  $given
     *
     * @throws DomainError
     */
    private function asked(array $given): LedgerAsked
    {
        $person = isset($given['person']) ? $this->personGiven($given['person'], '/person') : null;
        $days = array_map(
            fn (string $day): ?\DateTimeImmutable => isset($given[$day]) ? new \DateTimeImmutable($given[$day], $this->company->zone())
                : null,
            ['from', 'until'],
        );

        return new LedgerAsked(
            show: $given['show'] ?? null, rule: self::number($given, 'rule'), person: $person,
            record: isset($given['record']) ? $this
                ->recordCalled($given['record']) : null,
            from: $days[0], until: $days[1]?->modify('+1 day'), outcome: $given['outcome'] ?? null,
        );
    }

    /**
     * @return array{string, int} type and id
     *
     * @throws DomainError
     */
    private function recordCalled(string $number): array
    {
        foreach ($this->inSight->schema()->types as $type) {
            $id = $type->idOf($number);
            if ($id !== null) {
                return [$type->name, $id];
            }
        }
        $message = Words::say('‘{number}’ is no number of a record. Write it like T-0042.', number: $number);
        throw new DomainError('unknown_value', $message, RefusedFor::Invalid,
            [['at' => '/record', 'code' => 'unknown_value', 'message' => $message]]);
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
            responses: [new Ok(MomentAnswers::class)],
        ),
    ]
    public function why(string $type, int $id, WhyInput $request, WhyNot $whyNot, HouseClock $clock): MomentAnswers
    {
        $given = $request->validated();
        $at = isset($given['at']) ? new \DateTimeImmutable($given['at']) : $clock->now();
        $entry = $this->entries->lastAnswerable($this->type($type)->name, $id, $at)
            ?? throw new DomainError(
                'nothing_happened',
                Words::say('Nothing had happened to the record by then, so no rule was asked.'),
                RefusedFor::Missing,
            );
        $answer = static fn (array $answer): AnswerResource => new AnswerResource(
            $answer['rule'], $answer['name'], $answer['page'], $answer['firedIn'], VerdictResource::of($answer['verdict']),
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
            responses: [new Ok(AnswerResource::class, list: true)],
        ),
    ]
    public function answers(int $number, OneRuleInput $request, WhyNot $whyNot): JsonResponse
    {
        $given = $request->validated();
        $entry = $this->mine($number, $request);

        return new JsonResponse($this->told($whyNot->answers($number, self::number($given, 'rule')), (string) $entry->recordType));
    }

    /** An entry that whoever asks may read: about a record they see, or any, for those who read the ledger. */
    private function mine(int $number, Request $request): EntryResource
    {
        $person = $this->person($request);
        $entry = $this->entries->one($number, $person->may(Duty::SeeDoors));

        return $entry !== null && ($entry->recordType !== null || $person->may(Duty::SeeLedger)) ? $entry
            : throw DomainError::missing(Words::say('There is no entry {number}.', number: $number));
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
