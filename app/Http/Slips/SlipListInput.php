<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class SlipListInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['box' => 'sometimes|in:mine,waiting,all', 'limit' => 'sometimes|integer|min:1|max:200'];
    }

    public function meant(): array
    {
        return [
            'box' => 'Which of them: mine, waiting or all.',
            'limit' => 'How many.',
        ];
    }
}
