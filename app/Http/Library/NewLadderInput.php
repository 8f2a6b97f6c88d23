<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class NewLadderInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['name' => 'present|nullable|string', 'rungs' => 'present|array|list'];
    }
}
