<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Moment;
use App\Http\PersonGiven;
use Illuminate\Foundation\Http\FormRequest;

final class TasksInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'ids' => 'required|array|list|max:500', 'ids.*' => 'integer|min:1', 'dueAt' => ['sometimes', 'nullable', new Moment],
            'assigneeId' => ['nullable', new PersonGiven], 'complete' => 'nullable|boolean',
        ];
    }
}
