<?php

declare(strict_types=1);

namespace App\Http\Rules;

use Illuminate\Foundation\Http\FormRequest;

final class PublishInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'version' => 'required|integer', 'existing' => 'nullable|in:leave,count,start', 'hours' => 'nullable|integer',
            'move' => 'nullable|boolean', 'why' => 'nullable|string|max:200',
        ];
    }
}
