import type { Check, Geometry, Status } from "../api/client";

/** The four places where the rig stands on the ground or on its hitch, and the check that each is compared with. */
export const POSTS = [
  { id: "front", check: "vehicle.front_axle" },
  { id: "rear", check: "vehicle.rear_axle" },
  { id: "tongue", check: "hitch.tongue" },
  { id: "trailer", check: "trailer.axles" },
] as const;
export type PostId = (typeof POSTS)[number]["id"];

/** How much room the drawing has, in CSS pixels: `labels` are set beside the posts, or below them on a narrow screen. */
export type Sizes = {
  labels: "beside" | "below" | "none";
  elevation: number;
  post: number;
  widest: number;
  gap: number;
  brace: number;
  side: number;
};

export const WIDE: Sizes = { labels: "beside", elevation: 158, post: 84, widest: 66, gap: 46, brace: 43, side: 150 };
export const SHORT: Sizes = { labels: "beside", elevation: 104, post: 66, widest: 56, gap: 46, brace: 43, side: 150 };
export const NARROW: Sizes = { labels: "below", elevation: 70, post: 46, widest: 34, gap: 40, brace: 34, side: 26 };

/** For capture by thumb: the rig and its posts, nothing to read. */
export const STRIP: Sizes = { labels: "none", elevation: 62, post: 30, widest: 30, gap: 34, brace: 0, side: 30 };

export type Post = {
  id: PostId;
  check: Check | undefined;
  /** Where it stands, and where the load it carries really acts. */
  x: number;
  acts: number;
  width: number;
  /** Filled height of the frame, and what stands out beyond it; both in pixels, the second cut at `HEADROOM`. */
  fill: number;
  beyond: number;
  cut: boolean;
  whisker: number;
  /** Whether the load is only expected: it is outlined then, never filled. */
  expected: boolean;
  /** Height of what was weighed, where the post itself is predicted; null when it was not. */
  weighed: number | null;
};

export type Layout = {
  width: number;
  height: number;
  /** From metres behind the front axle, and metres above ground, to pixels. */
  across: (metres: number) => number;
  up: (metres: number) => number;
  scale: number;
  ground: number;
  frameTop: number;
  frameBottom: number;
  posts: Post[];
  marks: { rear: number; hitch: number; axles: number[] };
  braces: number[];
};

/** Room above the frames for what is over, in pixels; a third of a frame, then it is cut with a break line. */
export const headroom = (sizes: Sizes) => Math.round(sizes.post * 0.34);

/** The shape of the whole drawing, from the rig's lengths and the checks. Knows no React and no DOM. */
export function layOut(
  geometry: Geometry,
  towing: boolean,
  checks: readonly Check[],
  sizes: Sizes,
  width: number,
  measured?: readonly Check[],
): Layout {
  const { nose, rear, hitch, centre, vehicle, trailer } = geometry.outline;
  const tail = towing ? trailer.end : vehicle.end;
  const tall = Math.max(vehicle.tall, towing ? trailer.tall : 0);
  const scale = Math.min((width - 2 * sizes.side) / (tail - nose), sizes.elevation / tall);
  const left = (width - scale * (tail - nose)) / 2 - nose * scale;
  const across = (metres: number) => left + metres * scale;
  const ground = sizes.elevation + 8;
  const up = (metres: number) => ground - metres * scale;
  const room = headroom(sizes);
  const frameTop = ground + room + 6;
  const frameBottom = frameTop + sizes.post;
  const acting: Record<PostId, number> = {
    front: across(0),
    rear: across(rear),
    tongue: across(hitch),
    trailer: across(centre),
  };
  const shown = POSTS.filter((post) =>
    towing ? post.id !== "tongue" || geometry.style !== "towed_car" : post.id === "front" || post.id === "rear",
  );
  const ratings = shown.map((post) => limitOf(checks, post.check) ?? 0);
  const heaviest = Math.max(...ratings, 1);
  const posts: Post[] = shown.map((post) => {
    const check = checks.find((each) => each.id === post.check);
    const limit = check?.limit ?? null;
    const ahead = check?.actual === null ? check.expected : null;
    const load = check?.actual ?? ahead?.actual ?? check?.at_least ?? null;
    const pm = check?.plus_minus ?? ahead?.plus_minus ?? null;
    const share = limit && load !== null ? load / limit : 0;
    const seen = measured?.find((each) => each.id === post.check)?.actual ?? null;
    const beyond = share > 1 ? Math.max(5, (share - 1) * sizes.post) : 0;
    return {
      id: post.id,
      check,
      x: acting[post.id],
      acts: acting[post.id],
      width: limit ? Math.max(11, Math.round((sizes.widest * limit) / heaviest)) : 20,
      fill: Math.max(0, Math.min(1, share)) * sizes.post,
      beyond: Math.min(beyond, room - 4),
      cut: beyond > room - 4,
      weighed: limit && seen !== null ? Math.max(0, Math.min(1.3, seen / limit)) * sizes.post : null,
      whisker: limit && pm ? (pm / limit) * sizes.post : 0,
      expected: ahead !== null && ahead !== undefined,
    };
  });
  spread(posts, sizes);
  const labels = sizes.labels === "below" ? 50 : 0;
  const firstBrace = frameBottom + 14 + labels;
  const braces = sizes.brace === 0 ? [] : towing ? [firstBrace, firstBrace + sizes.brace] : [firstBrace];
  return {
    width,
    height: braces.length ? (braces.at(-1) ?? 0) + sizes.brace - 4 : frameBottom + 8,
    across,
    up,
    scale,
    ground,
    frameTop,
    frameBottom,
    posts,
    marks: { rear, hitch, axles: trailer.wheels.map((wheel) => wheel.at) },
    braces,
  };
}

const limitOf = (checks: readonly Check[], id: string) => checks.find((check) => check.id === id)?.limit;

/** Keep neighbours apart: a pin stands over the rear axle, so its post steps aside and a leader shows where it acts. */
function spread(posts: Post[], { gap, labels }: Sizes) {
  for (let index = 1; index < posts.length; index++) {
    const here = posts[index];
    const before = posts[index - 1];
    if (!here || !before) continue;
    // the rear axle's figures stand before its post, the tongue's behind its own
    const beside = labels === "beside" ? (here.id === "rear" ? 104 : here.id === "trailer" ? 100 : gap) : gap;
    const least =
      before.x + (before.width + here.width) / 2 + beside * (here.id === "tongue" && labels !== "below" ? 0.6 : 1);
    here.x = Math.max(here.x, Math.round(least));
  }
}

/** Paint of a post's fill by status; patterns are defined in the drawing. */
export function fillOf(status: Status | undefined): string {
  switch (status) {
    case "over":
    case "low":
      return "var(--vermilion)";
    case "high":
    case "tight":
      return "url(#hatch)";
    case "unconfirmed":
      return "url(#lined)";
    case "unknown":
    case undefined:
      return "url(#dots)";
    case "within":
      return "var(--spruce)";
  }
}
