<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Ledger\Entries;
use App\Http\Ledger\EntryResource;
use App\Models\Records\Attachment;
use App\Store\DomainError;
use App\Store\Records\RecordEvents;
use App\Store\RefusedFor;
use App\Store\Rules\GuardStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** What stands beside a record's fields: comments, files, followers, what repeat guards have used, and rules to be run by hand. */
final class BesideController extends Controller
{
    private const PICTURES = [IMAGETYPE_PNG, IMAGETYPE_JPEG, IMAGETYPE_GIF, IMAGETYPE_WEBP];

    public function __construct(
        private readonly RecordEvents $remarks,
        private readonly RecordSidebar $beside,
    ) {
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/beside',
            operationId: 'beside',
            description: 'What stands beside the fields of a record: files, followers, used repeat guards, and rules that can be run by '
                .'hand.',
            tags: ['records'],
            responses: [new Ok(BesideResource::class)],
        ),
    ]
    public function show(string $type, int $id): BesideResource
    {
        return $this->beside->of($this->type($type), $id);
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/comments',
            operationId: 'addComment',
            description: 'Adds a comment to a record; rules that wait for one answer it.',
            tags: ['records'],
            responses: [new Ok(EntryResource::class, status: 201)],
        ),
    ]
    public function comment(string $type, int $id, CommentInput $request, Entries $entries): JsonResponse
    {
        $given = $request->validated();
        $saved = $this->remarks->comment($this->type($type), $id, (string) $given['text'], $this->actor($request));

        return new JsonResponse($entries->one((int) $saved->entryId), 201);
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/files',
            operationId: 'addFile',
            description: 'Multipart, the file under the name "file".',
            tags: ['records'],
            responses: [new Ok(EntryResource::class, status: 201)],
        ),
    ]
    public function file(string $type, int $id, Request $request, Entries $entries): JsonResponse
    {
        $upload = $request->file('file');
        if (! $upload instanceof \Illuminate\Http\UploadedFile || ! $upload->isValid()) {
            $message = Words::say('Choose a file. {tooLarge}', tooLarge: RecordEvents::tooLarge());
            throw new DomainError(
                'invalid_values',
                $message,
                RefusedFor::Invalid,
                [['at' => '/file', 'code' => 'missing', 'message' => $message]],
            );
        }

        return new JsonResponse(
            $entries->one((int) $this->remarks->file($this->type($type), $id, $upload, $this->actor($request))->entryId),
            201,
        );
    }

    #[
        OA\Get(
            path: '/api/files/{id}',
            operationId: 'file',
            description: 'The file itself.',
            tags: ['records'],
            responses: [new OA\Response(response: 200, description: 'The file.')],
        ),
    ]
    public function download(int $id): Response
    {
        $file = Attachment::query()->with('stored')->find($id) ?? throw DomainError::missing(Words::say('There is no file {id}.', id: $id));
        $plain = trim((string) preg_replace('/[^A-Za-z0-9._ -]+/', '_', $file->name), ' .');

        // Always saved and never shown: what somebody put here must not run in another person's session.
        return response($file->stored->content, 200, [
            'Content-Type' => 'application/octet-stream', 'X-Content-Type-Options' => 'nosniff',
            'Content-Disposition' => "attachment; filename=\"{$plain}\"; filename*=UTF-8''".rawurlencode($file->name),
        ]);
    }

    #[
        OA\Get(
            path: '/api/files/{id}/picture',
            operationId: 'picture',
            description: 'A file that is a picture (PNG, JPEG, GIF or WebP), to be shown.',
            tags: ['records'],
            responses: [new OA\Response(response: 200, description: 'The picture.')],
        ),
    ]
    public function picture(int $id): Response
    {
        $file = Attachment::query()->with('stored')->find($id);
        // What it is, its bytes say, not whoever sent it.
        $kind = $file === null ? false : @getimagesizefromstring($file->stored->content);
        if ($file === null || $kind === false || ! in_array($kind[2], self::PICTURES, true)) {
            throw DomainError::missing(Words::say('There is no picture {id}.', id: $id));
        }

        return response($file->stored->content, 200, [
            'Content-Type' => $kind['mime'], 'X-Content-Type-Options' => 'nosniff', 'Cache-Control' => 'private, max-age=3600',
            'Content-Security-Policy' => "default-src 'none'; sandbox",
        ]);
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/follow',
            operationId: 'follow',
            description: 'Follows a record, or no longer.',
            tags: ['records'],
            responses: [new Ok],
        ),
    ]
    public function follow(string $type, int $id, FollowInput $request): Response
    {
        $given = $request->validated();
        $this->remarks->follow($this->type($type), $id, $this->person($request)->id, (bool) $given['follows']);

        return response()->noContent();
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/guards/{number}',
            operationId: 'resetGuard',
            description: 'Makes the used guard of a rule ready again for this record.',
            tags: ['records'],
            responses: [new Ok(BesideResource::class)],
        ),
    ]
    public function reset(string $type, int $id, int $number, GuardResetInput $request, GuardStore $guards): BesideResource
    {
        $given = $request->validated();
        $guards->reset($number, $this->type($type)->name, $id, (string) $given['why'], $this->person($request)->id);

        return $this->show($type, $id);
    }
}
