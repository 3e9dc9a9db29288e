import type { ReactNode } from "react";
import { AxlesAndTotal, CountedOnce, FrontGetsLighter, PlatformIsNotTrailer, Stopping, WeakestPart } from "./pictures";

export type Topic = { title: string; says: readonly string[]; instead?: string; picture?: ReactNode };

export const ORDER: readonly Topic[] = [
  {
    title: "1 · Plates: copy the ratings off the labels",
    says: [
      "The label on the driver's door frame has the GVWR and the axle ratings. The placard beside it has the payload, the tire size and the cold pressures; a second sticker may take some of the payload away again.",
      "The towing guide has GCWR, tow rating and tongue limit for your engine, axle ratio, cab and drive. The trailer's label has its GVWR and axle ratings. The receiver, ball mount, ball and coupler each have a rating of their own.",
    ],
    picture: <WeakestPart />,
  },
  {
    title: "2 · Pack: add it up before you weigh",
    says: [
      "People, pets, gear, hitch, water, propane. The empty weights of brochures leave out what owners fit. Plan with what the label shows, options included.",
      "Until you have weighed, everything is expected, and Noxel says from what. An estimate can show an overload. It can never clear one.",
    ],
  },
  {
    title: "3 · Weigh, loaded as for the road",
    says: [
      "Everyone aboard, fuel full, tanks as you travel with them. First pass: coupled, each axle on its own platform. Second pass: the vehicle alone, the same people, the same fuel.",
      "With spring bars, a third pass coupled with the bars slack gives the true tongue weight. “At the scale” leads through it one step at a time.",
    ],
    picture: <PlatformIsNotTrailer />,
  },
  {
    title: "4 · Compare every limit, not one",
    says: [
      "Each axle, the vehicle, the trailer in total, both together, the tongue, every part of the hitch, wheels and tires. Being within one says nothing of the others.",
      "The limit with the least left is the one that counts. It is rarely the tow rating.",
    ],
    picture: <AxlesAndTotal />,
  },
  {
    title: "5 · Adjust, and know what each step does to all the others",
    says: [
      "Move things, drain water, leave things at home, carry them in the other vehicle, tension the bars otherwise. Moving a load back in the trailer makes the tongue lighter, and too light a tongue sways.",
    ],
  },
  {
    title: "6 · Weigh again, and keep the record",
    says: [
      "Things creep aboard. Weigh again after every change of load, and once a season. The log keeps tickets, photographs, what was aboard and what was decided.",
    ],
  },
];

export const TRAPS: readonly Topic[] = [
  {
    title: "The trailer's platform taken for the trailer",
    says: [
      "What stands on the platform is the load on the trailer's axles. The load on the hitch belongs to the trailer too.",
    ],
    instead: "everything on the scale, less the vehicle weighed alone.",
    picture: <PlatformIsNotTrailer />,
  },
  {
    title: "The tongue counted twice",
    says: ["Vehicle coupled plus trailer in total counts the load on the hitch in both. Together it counts once."],
    instead: "add the three platforms of the coupled pass.",
    picture: <CountedOnce />,
  },
  {
    title: "The rear axle's gain taken for the tongue",
    says: ["On a ball hitch the front axle gets lighter, so the rear axle gains more than the tongue weighs."],
    instead: "both axles coupled, less both axles alone, with the bars slack.",
    picture: <FrontGetsLighter />,
  },
  {
    title: "The tongue measured with the bars engaged",
    says: [
      "Engaged bars push part of the tongue's load onto the trailer's axles. The difference of two passes then shows only what is left on the vehicle.",
    ],
    instead: "a pass with the bars slack, in the scale yard only, or a tongue scale.",
  },
  {
    title: "A “can tow” figure believed",
    says: ["The tow rating is one limit of many. Payload or the rear axle is often gone long before it."],
    instead: "ask how much this vehicle can tow with these people and this load, by every limit.",
    picture: <AxlesAndTotal />,
  },
  {
    title: "The placard's payload believed",
    says: [
      "The placard is for the vehicle as it left the factory. A bed cap, a toolbox, steps and larger tires have used some of it up.",
    ],
    instead: "GVWR less what the scale shows, coupled.",
  },
  {
    title: "A rating worked out, and then believed",
    says: [
      "GVWR plus tow rating is not the GCWR; the published one is often lower. GCWR less GVWR is not the tow rating. The sum of the axle ratings is not the GVWR.",
    ],
    instead: "the figure in the guide. Noxel marks a worked-out one and confirms nothing on it.",
  },
  {
    title: "Dry weight as the trailer's weight",
    says: [
      "Brochures weigh the trailer without propane, battery, options, water and everything you own. The dry tongue weight is as far off.",
    ],
    instead: "plan at the trailer's rating, or weigh.",
  },
  {
    title: "The weakest part of the hitch forgotten",
    says: [
      "A hitch is a chain. The ball may be rated less than the receiver, and a receiver has two ratings: carrying the load, and distributing it.",
    ],
    instead: "read each part's own label, in the mode in which it is used.",
    picture: <WeakestPart />,
  },
  {
    title: "Bars, air bags and springs believed to raise a rating",
    says: ["They move load or lift the tail. GVWR, axle, wheel and tire ratings stay what they were."],
    instead: "take weight off, or carry it where there is room.",
  },
  {
    title: "“A few per cent over is fine”",
    says: ["Over is over. Noxel prints by how much, and says when the scale cannot tell."],
  },
  {
    title: "Pounds and kilograms, one digit too many",
    says: [
      "A ticket in kilograms typed as pounds makes an overloaded rig look light. Noxel asks when figures contradict each other, and says nothing is within until you answer.",
    ],
  },
];

export const CONSEQUENCES: readonly Topic[] = [
  {
    title: "Brakes",
    says: [
      "Energy grows with mass and with the square of speed. A combination a tenth heavier needs about a tenth more road to stop, and its brakes get hotter on every descent.",
      "Trailer brakes are required above a mass that differs by state and country. Look it up for where you drive.",
    ],
    picture: <Stopping />,
  },
  {
    title: "Tires and wheels",
    says: [
      "An overloaded or underinflated tire runs hot and fails, mostly at speed and in summer. Trailer tires age faster than they wear. Set pressures cold, by the tire maker's table, never above the figure on the sidewall.",
    ],
  },
  {
    title: "Steering and sway",
    says: [
      "A heavy tongue far behind the rear axle lifts load off the front wheels: the vehicle steers and brakes with less grip, and its lights shine high.",
      "A light tongue lets the trailer swing. Sway starts at a speed, and above it no driver is quick enough.",
    ],
    picture: <FrontGetsLighter />,
  },
  {
    title: "Why room is not waste",
    says: [
      "A scale weighs what stands still. Potholes, curbs and braking load axles and hitch with a multiple of it for a moment. Ratings leave room for ordinary roads; nothing leaves room for ratings already exceeded.",
    ],
  },
  {
    title: "Fines, insurance, warranty",
    says: [
      "Police weigh with scales of their own. After an accident an insurer may weigh as well. Repairs of overloaded axles and frames are seldom covered.",
    ],
  },
  {
    title: "When it sways",
    says: [
      "Hold the wheel still and ease off the gas. With a brake controller, work the trailer's brakes by hand. Do not steer against it, do not brake hard, do not speed up.",
      "Stop when it is slow. Before you go on, find out why: too little on the tongue, load behind the axles, too fast, tires, wind.",
    ],
  },
  {
    title: "Why weight needs distance",
    says: [
      "Brakes turn motion into heat. A quarter more weight at the same speed is a quarter more heat, and a longer way to a stop. Tires heat up with load, with speed and with every psi or kPa that is missing.",
    ],
  },
  {
    title: "The first time at a public scale",
    says: [
      "Drivers of all sorts weigh there; nobody minds a beginner. Say at the desk that it is your first time. If you did not understand the voice, press the button and ask again. If you stand wrong, drive round and come again.",
    ],
  },
  {
    title: "In the yard",
    says: [
      "Chock the wheels before uncoupling. Never crawl under a trailer on its jack. Stay clear of the hitch, of a loaded lever and of spring bars: they can strike. Do not tow with slack bars beyond the scale yard where the maker requires them.",
    ],
  },
];
