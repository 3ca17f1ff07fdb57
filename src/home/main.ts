/** The page of a practice room that is one file: reads what it holds and opens the room. */
import { mount } from 'svelte';
import { z } from 'zod';
import type { HomeContents } from '$core/lessons/home';
import { speakAs } from '$ui/text';
import './home.css';
import Home from './Home.svelte';

/** It was written by this program, together with this page: whether it is there at all is asked. */
const contentsSchema = z.custom<HomeContents>(
  (value) =>
    z.looseObject({ id: z.string(), name: z.string(), tasks: z.array(z.unknown()) }).safeParse(value).success,
);

const contents = contentsSchema.parse(JSON.parse(document.getElementById('contents')?.textContent ?? 'null'));
speakAs(contents.locale);
mount(Home, { target: document.body, props: { contents } });
