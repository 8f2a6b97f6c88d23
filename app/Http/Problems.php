<?php

declare(strict_types=1);

namespace App\Http;

use App\Http\Describe\ProblemDocument;
use App\Store\DomainError;
use App\Store\LedgerConnection;
use App\Store\Records\RecordEvents;
use App\Store\RefusedFor;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use VividLedger\Words\Words;

/** Turns every refusal under /api into a problem document (RFC 9457) with a stable code. */
final class Problems
{
    /** Members of requests that are lists; every other that is no plain value is an object. */
    private const LISTS = [
        'choices', 'columns', 'entries', 'fields', 'ids', 'people', 'records', 'rules', 'rungs', 'starts', 'takes', 'teams', 'whatIfs',
    ];

    /** Seconds after which it may be tried again. */
    private const SOON = 5;

    private const A_MINUTE = 60;

    /** Headers of exceptions that stand in the answer. */
    private const TOLD = ['allow', 'retry-after', 'x-ratelimit-limit', 'x-ratelimit-remaining', 'x-ratelimit-reset'];

    public static function register(Exceptions $exceptions): void
    {
        $exceptions->dontReport(DomainError::class);
        $exceptions->render(static fn (\Throwable $thrown, Request $request): ?Response => match (true) {
            str_starts_with($request->getPathInfo(), '/api/') => self::of($thrown),
            // A page, and what other systems bring, are told when to come again.
            self::isUnreachable($thrown) => new Response(
                Words::say('The database cannot be reached just now. Try again in a moment.'), 503,
                ['Retry-After' => (string) self::SOON, 'Content-Type' => 'text/plain; charset=utf-8'],
            ),
            default => null,
        });
    }

    /**
     * @param  list<array{at: string, code: string, message: string, position?: ?int}>  $problems
     * @param  array<string, mixed>  $more
     */
    public static function document(int $status, string $code, string $detail, array $problems = [], array $more = []): JsonResponse
    {
        $document = [
            'type' => "urn:vivid-ledger:problem:{$code}", 'title' => self::title($status), 'status' => $status, 'detail' => $detail,
            'code' => $code, 'problems' => array_map(static fn (array $problem): array => $problem + ['position' => null], $problems),
            ...$more,
        ];

        return new JsonResponse($document, $status, ['Content-Type' => 'application/problem+json'] + match ($status) {
            401 => ['WWW-Authenticate' => 'Bearer realm="Vivid Ledger"'],
            429 => ['Retry-After' => (string) self::A_MINUTE],
            503 => ['Retry-After' => (string) self::SOON],
            default => [],
        }, JSON_UNESCAPED_UNICODE);
    }

    /** What a problem of the kind is called, whatever happened this time; that stands in its detail (RFC 9457 §3.1.3). */
    private static function title(int $status): string
    {
        return match ($status) {
            400, 413, 414, 415 => Words::say('This cannot be taken'),
            401, 419 => Words::say('Sign in'),
            403 => Words::say('Not allowed'),
            404 => Words::say('Not there'),
            405 => Words::say('No such method'),
            409 => Words::say('Not as things stand'),
            422 => Words::say('Something given does not do'),
            429 => Words::say('Too much at once'),
            503 => Words::say('Busy'),
            default => Words::say('Something went wrong'),
        };
    }

    /** A refusal as a part of an answer. */
    public static function described(DomainError $refused): ProblemDocument
    {
        $document = self::document(
            self::status($refused->for),
            $refused->reason,
            $refused->getMessage(),
            $refused->problems,
        )->getData(true);

        return new ProblemDocument(
            type: $document['type'], title: $document['title'], status: $document['status'], detail: $document['detail'],
            code: $document['code'], problems: $document['problems'],
        );
    }

    /** The sign by which HTTP knows a refusal. */
    private static function status(RefusedFor $for): int
    {
        return match ($for) {
            RefusedFor::Unreadable => 400,
            RefusedFor::NotAllowed => 403,
            RefusedFor::Missing => 404,
            RefusedFor::Conflict => 409,
            RefusedFor::Invalid => 422,
            RefusedFor::TooMany => 429,
            RefusedFor::Busy => 503,
        };
    }

    private static function of(\Throwable $thrown): JsonResponse
    {
        if ($thrown instanceof DomainError) {
            return self::document(self::status($thrown->for), $thrown->reason, $thrown->getMessage(), $thrown->problems, $thrown->more);
        }
        if ($thrown instanceof ValidationException) {
            return self::document(422, 'invalid_request', Words::say('The request is not as the API describes it.'), self::fields($thrown));
        }
        $previous = $thrown->getPrevious() ?? $thrown;
        [$status, $code, $title] = match (true) {
            $thrown instanceof AuthenticationException => [401, 'not_signed_in', Words::say('Sign in first.')],
            $previous instanceof AuthorizationException => [
                403, 'not_allowed', $previous->response()->message() ?? Words::say('Your role does not allow this.'),
            ],
            $thrown instanceof AccessDeniedHttpException => [403, 'not_allowed', Words::say('Your role does not allow this.')],
            $previous instanceof TokenMismatchException => [419, 'session_expired', Words::say('Your session has ended. Sign in again.')],
            $thrown instanceof HttpExceptionInterface => match ($thrown->getStatusCode()) {
                404 => [404, 'not_found', Words::say('There is nothing at this address.')],
                405 => [405, 'wrong_method', Words::say('This address does not take that method.')],
                400 => [400, 'bad_request', Words::say('This cannot be read as a request.')],
                413 => [413, 'too_large', Words::say('This is larger than can be taken. {tooLarge}', tooLarge: RecordEvents::tooLarge())],
                429 => [429, 'too_many_tries', Words::say('Too many tries. Wait a minute and try again.')],
                default => [$thrown->getStatusCode(), 'refused', Words::say('The request was refused.')],
            },
            self::isUnreachable($thrown) => [503, 'busy', Words::say('The database cannot be reached just now. Try again in a moment.')],
            default => [500, 'failed', Words::say('Something went wrong on our side. Nothing was changed; please try again.')],
        };

        $answer = self::document($status, $code, $title);
        // Which methods there are (RFC 9110 §15.5.6), and how long to wait.
        foreach ($thrown instanceof HttpExceptionInterface ? $thrown->getHeaders() : [] as $name => $value) {
            if (in_array(strtolower((string) $name), self::TOLD, true)) {
                $answer->headers->set((string) $name, (string) $value);
            }
        }

        return $answer;
    }

    private static function isUnreachable(\Throwable $thrown): bool
    {
        return DB::connection() instanceof LedgerConnection && DB::connection()->isGone($thrown);
    }

    /** @return list<array{at: string, code: string, message: string}> */
    private static function fields(ValidationException $invalid): array
    {
        $problems = [];
        $failed = $invalid->validator->failed();
        foreach ($invalid->errors() as $field => $messages) {
            // The library calls an object what PHP calls it.
            $message = match (true) {
                ! isset($failed[$field]['Array']) => $messages[0],
                in_array($field, self::LISTS, true) => Words::say('The {member} field has to be a list.', member: $field),
                default => Words::say('The {member} field has to be an object.', member: $field),
            };
            $problems[] = ['at' => '/'.str_replace('.', '/', $field), 'code' => 'invalid', 'message' => $message];
        }

        return $problems;
    }
}
