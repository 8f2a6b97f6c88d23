<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Moment;
use Illuminate\Foundation\Http\FormRequest;

final class TasksInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'ids' => 'required|array|max:500', 'ids.*' => 'integer|min:1', 'dueAt' => ['sometimes', 'nullable', new Moment],
            'assigneeId' => 'nullable', 'complete' => 'nullable|boolean',
        ];
    }
}
