<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Library\LetterPreview;
use App\Http\Library\LetterPreviewInput;
use App\Http\Library\PreviewResource;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Work\Outbound\OutboxRelay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** Messages that rules sent, and how one would read before it is sent. */
final class MessageController extends Controller
{
    public function __construct(private readonly Messages $messages)
    {
    }

    #[
        OA\Get(
            path: '/api/notes',
            operationId: 'notes',
            description: 'Notes in the application for whoever asks.',
            tags: ['messages'],
            responses: [new Ok(MessageResource::class, list: true)],
        ),
    ]
    public function notes(Request $request): JsonResponse
    {
        return new JsonResponse($this->messages->notes($this->person($request)->id, 20));
    }

    #[OA\Get(path: '/api/messages', operationId: 'messages', description: 'Messages in one state, the newest first: what failed can be '
        .'tried again. All can be read by asking again with the last id.', tags: ['messages'],
        responses: [new Ok(MessageResource::class, list: true)])]
    public function index(MessagesInput $request): JsonResponse
    {
        $given = $request->validated();
        $status = $given['status'] ?? 'failed';

        return new JsonResponse($this->messages->inStatus(
            $status === 'all' ? null : $status,
            self::number($given, 'before'),
            self::number($given, 'after'),
            self::number($given, 'limit') ?? 50,
        ));
    }

    #[
        OA\Get(
            path: '/api/messages/{id}',
            operationId: 'message',
            description: 'One message, and whether it has arrived.',
            tags: ['messages'],
            responses: [new Ok(MessageResource::class)],
        ),
    ]
    public function show(int $id): MessageResource
    {
        return $this->messages->one($id) ?? throw DomainError::missing(Words::say('There is no message {id}.', id: $id));
    }

    #[
        OA\Post(
            path: '/api/messages/{id}/again',
            operationId: 'sendAgain',
            description: 'Tries a failed message once more.',
            tags: ['messages'],
            responses: [new Ok(MessageResource::class)],
        ),
    ]
    public function again(int $id, OutboxRelay $postman): MessageResource
    {
        if (! $postman->again($id)) {
            throw new DomainError('wrong_state', Words::say('Only a message that failed can be tried again.'), RefusedFor::Conflict);
        }

        return $this->show($id);
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/messages',
            operationId: 'recordMessages',
            description: 'The messages on the account of a record, the newest first.',
            tags: ['messages'],
            responses: [new Ok(MessageResource::class, list: true)],
        ),
    ]
    public function ofRecord(string $type, int $id): JsonResponse
    {
        return new JsonResponse($this->messages->ofRecord($this->type($type)->name, $id));
    }

    #[
        OA\Post(
            path: '/api/messages/preview',
            operationId: 'previewMessage',
            description: 'A message line as it would come out for a record; nothing is sent.',
            tags: ['messages'],
            responses: [new Ok(PreviewResource::class)],
        ),
    ]
    public function preview(LetterPreviewInput $request, LetterPreview $preview): PreviewResource
    {
        $given = $request->validated();

        return $preview->of($this->type($given['on']), $given['line'], (int) $given['record'], $this->person($request)->id);
    }
}
