<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Moment;
use App\Http\PersonGiven;
use Illuminate\Foundation\Http\FormRequest;

final class NewTaskInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'title' => 'required|string|max:200', 'recordType' => 'required|string', 'recordId' => 'required|integer|min:1',
            'dueAt' => ['sometimes', 'nullable', new Moment], 'assigneeId' => ['nullable', new PersonGiven],
            'notes' => 'nullable|string|max:2000',
            'priority' => 'nullable|in:low,normal,high',
        ];
    }
}
