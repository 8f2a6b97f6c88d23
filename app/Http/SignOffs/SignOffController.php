<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Describe\Controller;
use App\Http\Describe\CsvAnswer;
use App\Http\Describe\Ok;
use App\Http\Slips\AnsweredResource;
use App\Models\People\Person;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Access\AccessEntries;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\SignOffs\SignOffFilter;
use App\Store\SignOffs\SignOffService;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VividLedger\Rights\Duty;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\NotDecided;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Words\Words;

/** Sign-offs: what waits for somebody, what they asked for, and their answers. */
final class SignOffController extends Controller
{
    private const A_PAGE = 100;

    public function __construct(private readonly SignOffs $signOffs, private readonly SignOffService $desk)
    {
    }

    #[OA\Get(
        path: '/api/sign-offs',
        operationId: 'signOffs',
        description: 'Sign-offs: those that wait for oneself, the oldest first; or others, the latest first. All of them are for '
            .'administrators.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffPage::class)],
    )]
    public function index(SignOffListInput $request): SignOffPage
    {
        $given = $request->validated();
        $me = $this->person($request);
        [$box, $filter] = $this->asked($given, $me);
        $most = self::number($given, 'limit') ?? self::A_PAGE;
        $listed = $this->signOffs->listed($box, $me, $filter, self::number($given, 'after'), $most);
        $waiting = $this->signOffs->count('waiting', $me);

        return new SignOffPage(
            $listed,
            $box === 'waiting' && $filter->isNone() ? $waiting : $this->signOffs->count($box, $me, $filter),
            $waiting,
            count($listed) === $most ? $listed[$most - 1]->id : null,
        );
    }

    #[OA\Get(
        path: '/api/sign-offs/file',
        operationId: 'signOffFile',
        description: 'The same sign-offs as a file (CSV), all of them. That they were taken out stands in the ledger.',
        tags: ['sign-offs'],
        responses: [new OA\Response(response: 200, description: 'UTF-8, RFC 4180.',
            content: new OA\MediaType(mediaType: 'text/csv', schema: new OA\Schema(type: 'string')))],
    )]
    public function file(SignOffListInput $request, SignOffFile $file, AccessEntries $kept): StreamedResponse
    {
        $me = $this->person($request);
        [$box, $filter] = $this->asked($request->validated(), $me);
        $kept->write('exported', $me->id, ['title' => 'sign-offs', 'records' => $this->signOffs->count($box, $me, $filter)]);

        return CsvAnswer::of('sign-offs', static fn (): iterable => $file->lines($box, $me, $filter));
    }

    /**
     * @param  array<string, mixed>  $given
     * @return array{string, SignOffFilter}
     *
     * @throws DomainError when it is everybody's, and whoever asks may not see them
     */
    private function asked(array $given, Person $me): array
    {
        $box = $given['box'] ?? 'waiting';
        if ($box === 'all' && ! $me->may(Duty::WriteRules)) {
            throw new DomainError('not_allowed', Words::say('Only an administrator sees everybody’s sign-offs.'), RefusedFor::NotAllowed);
        }

        return [$box, new SignOffFilter(
            search: trim((string) ($given['search'] ?? '')),
            status: SignOffStatus::tryFrom((string) ($given['status'] ?? '')),
            type: $given['type'] ?? null, rule: self::number($given, 'rule'), person: self::number($given, 'person'),
        )];
    }

    #[OA\Get(
        path: '/api/sign-offs/{id}',
        operationId: 'signOff',
        description: 'One sign-off, for whoever was asked, whoever asked for it, and administrators.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffCase::class)],
    )]
    public function show(int $id, Request $request, SignOffCases $cases): SignOffCase
    {
        $me = $this->person($request);

        return $cases->one($this->visible($id, $me), $me);
    }

    #[OA\Get(
        path: '/api/records/{type}/{id}/sign-offs',
        operationId: 'signOffsOfRecord',
        description: 'The sign-offs that were asked for on a record, the latest first.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffResource::class, list: true)],
    )]
    public function ofRecord(string $type, int $id, Request $request): JsonResponse
    {
        return new JsonResponse($this->signOffs->ofRecord($this->type($type)->name, $id, $this->person($request)));
    }

    #[OA\Post(
        path: '/api/sign-offs/answers',
        operationId: 'answerSignOffs',
        description: 'Says yes or no to sign-offs that wait for oneself. A no needs its reason. Each is taken by itself, and what became '
            .'of each is told. What a step lets one correct is changed with the answer; that is for one sign-off at a time.',
        tags: ['sign-offs'],
        responses: [new Ok(AnsweredResource::class, list: true)],
    )]
    public function answer(SignOffAnswerInput $request): JsonResponse
    {
        $given = $request->validated();
        $me = $this->person($request)->id;
        $comment = trim($given['comment'] ?? '');
        if ($given['answer'] === Answer::No->value && $comment === '') {
            $not = NotDecided::withoutReason();
            throw new DomainError($not->reason, $not->getMessage(), RefusedFor::Invalid, [
                ['at' => '/comment', 'code' => $not->reason, 'message' => $not->getMessage()],
            ]);
        }
        $corrections = $given['corrections'] ?? [];
        if ($corrections !== []) {
            $id = (int) $given['ids'][0];
            $this->desk->answer($id, $me, Answer::from($given['answer']), $comment, $corrections);

            return new JsonResponse([new AnsweredResource($id, null)]);
        }
        $answered = [];
        foreach (array_unique(array_map(intval(...), $given['ids'])) as $id) {
            try {
                $this->desk->answer($id, $me, Answer::from($given['answer']), $comment);
                $answered[] = new AnsweredResource($id, null);
            } catch (DomainError $refused) {
                $answered[] = new AnsweredResource($id, $refused->getMessage());
            }
        }

        return new JsonResponse($answered);
    }

    #[OA\Post(
        path: '/api/sign-offs/{id}/withdraw',
        operationId: 'withdrawSignOff',
        description: 'Withdraws a sign-off, by whoever asked for it or an administrator.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffResource::class)],
    )]
    public function withdraw(int $id, Request $request): SignOffResource
    {
        $me = $this->person($request);
        $this->visible($id, $me);

        return $this->signOffs->one($this->desk->withdraw($id, $me->id, $me->may(Duty::WriteRules)), $me);
    }

    #[OA\Post(
        path: '/api/sign-offs/{id}/hand-over',
        operationId: 'handOverSignOff',
        description: 'Gives a sign-off that waits for oneself to somebody else.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffResource::class)],
    )]
    public function handOver(int $id, SignOffHandInput $request): SignOffResource
    {
        $given = $request->validated();
        $me = $this->person($request);
        $this->visible($id, $me);
        $to = $this->personGiven($given['to'], '/to');

        return $this->signOffs->one($this->desk->handOver($id, $me->id, $to, $given['comment'] ?? ''), $me);
    }

    #[OA\Post(
        path: '/api/sign-offs/{id}/ask',
        operationId: 'askBack',
        description: 'Asks whoever asked for the sign-off a question first. Until it is answered, time stands still.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffResource::class)],
    )]
    public function ask(int $id, SignOffQuestionInput $request): SignOffResource
    {
        $me = $this->person($request);
        $this->visible($id, $me);

        return $this->signOffs->one($this->desk->askBack($id, $me->id, (string) $request->validated('question')), $me);
    }

    #[OA\Post(
        path: '/api/sign-offs/{id}/answer-back',
        operationId: 'answerBack',
        description: 'Answers a question that was put back, by whoever asked for the sign-off or an administrator.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffResource::class)],
    )]
    public function answerBack(int $id, SignOffReplyInput $request): SignOffResource
    {
        $me = $this->person($request);
        $this->visible($id, $me);
        $given = $request->validated();
        $may = $me->may(Duty::WriteRules);
        $kept = $this->desk->answerBack($id, (int) $given['place'], $me->id, $may, (string) $given['answer']);

        return $this->signOffs->one($kept, $me);
    }

    #[OA\Post(
        path: '/api/sign-offs/{id}/unlock',
        operationId: 'unlockRecord',
        description: 'Sets the record free that a sign-off keeps locked, with a reason; the sign-off goes on. For administrators.',
        tags: ['sign-offs'],
        responses: [new Ok(SignOffResource::class)],
    )]
    public function unlock(int $id, UnlockInput $request): SignOffResource
    {
        $me = $this->person($request);

        return $this->signOffs->one($this->desk->unlock($id, $me->id, (string) $request->validated('reason')), $me);
    }

    /** Nobody finds out by asking for it that there is one they have no part in. */
    private function visible(int $id, Person $me): StoredSignOff
    {
        $kept = StoredSignOff::query()->with('seats')->find($id);
        if ($kept === null || $me->cannot('see', $kept)) {
            throw SignOffService::missing($id);
        }

        return $kept;
    }
}
